import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Source } from '../../src/core/master/source';
import { TroubleError } from '../../src/core/trouble/trouble';
import { Kernel } from '../../src/kernel/kernel';
import { FilmReader } from '../../src/render/film-reader';
import { openMedia } from '../../src/render/open-media';
import { ROOT } from '../root';
import { decodeWithFfmpeg } from './decoders';
import type { RenderOrder } from './order';

const KERNEL = path.join(ROOT, 'src/kernel/kernel.wasm');

/** A kernel of this thread's own. */
export const openServerKernel = (): Promise<Kernel> => Kernel.load(readFileSync(KERNEL));

/** Readers of a plan's sources, each opened when it is first wanted. The owner closes them together. */
export class Films {
  private readonly open = new Map<number, Promise<FilmReader>>();

  constructor(private readonly order: Pick<RenderOrder, 'plan' | 'masters'>) {
    decodeWithFfmpeg();
  }

  /** @throws TroubleError `master-gone` where its bytes are not here. */
  readonly of = (index: number): Promise<FilmReader> => {
    const known = this.open.get(index) ?? this.opened(this.source(index));
    this.open.set(index, known);
    return known;
  };

  source(index: number): Source {
    const source = this.order.plan.sources[index];
    if (!source) throw new RangeError(`the plan has no source ${index}`);
    return source;
  }

  close(): void {
    for (const reader of this.open.values()) {
      // One that did not open has nothing to close.
      reader.then((opened) => opened.close()).catch(() => undefined);
    }
  }

  private opened(source: Source): Promise<FilmReader> {
    const file = this.order.masters[source.fingerprint];
    if (file === undefined) throw new TroubleError('master-gone', { file: source.fileName });
    return FilmReader.of(source, openMedia(file));
  }
}
