import type { Grey } from '@core/pass/grey';
import { passNames } from '@core/pass/pass';
import { openWriter, type StoredWriter } from '../store/storage';

/** Grey copies are written this many at a time. */
const BATCH = 32;

/** Stores the grey copies of a master's frames, one after another. */
export class GreyWriter {
  private count = 0;
  private readonly batch: Uint8Array<ArrayBuffer>;

  private constructor(
    private readonly writer: StoredWriter,
    private readonly size: { width: number; height: number },
  ) {
    this.batch = new Uint8Array(size.width * size.height * BATCH);
  }

  static async open(fingerprint: string, { width, height }: Grey): Promise<GreyWriter> {
    return new GreyWriter(await openWriter('passes', passNames(fingerprint).grey), { width, height });
  }

  add({ data }: Grey): void {
    this.batch.set(data, (this.count % BATCH) * data.length);
    this.count += 1;
    if (this.count % BATCH === 0) this.write(BATCH);
  }

  async finish(): Promise<{ width: number; height: number; frames: number }> {
    this.write(this.count % BATCH);
    await this.writer.finish();
    return { ...this.size, frames: this.count };
  }

  async discard(): Promise<void> {
    await this.writer.discard().catch(() => undefined);
  }

  private write(count: number): void {
    if (count === 0) return;
    const bytes = this.size.width * this.size.height;
    this.writer.write(this.batch.subarray(0, count * bytes), (this.count - count) * bytes);
  }
}
