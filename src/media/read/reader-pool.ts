import type { Source } from '@core/master/source';
import { MasterReader } from './master-reader';

/** Readers of a plan's sources, each opened when it is first wanted. The owner closes them together. */
export class ReaderPool {
  private readonly open = new Map<number, Promise<MasterReader>>();

  constructor(private readonly sources: readonly Source[]) {}

  /** @throws TroubleError `master-gone` when the browser no longer has the bytes. */
  of(index: number): Promise<MasterReader> {
    const source = this.sources[index];
    if (!source) throw new RangeError(`the plan has no source ${index}`);
    const known = this.open.get(index) ?? MasterReader.open(source);
    this.open.set(index, known);
    return known;
  }

  close(): void {
    for (const reader of this.open.values()) {
      // One that did not open has nothing to close.
      reader.then((opened) => opened.close()).catch(() => undefined);
    }
  }
}
