import { readdir, readFile, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import type { PictureMaking } from '../../src/core/render/making';
import { secondsOf } from '../../src/core/time/frame-rate';
import type { MadeSegment } from './join';
import type { RenderOrder, Segment } from './order';
import { pictureBytes } from './packet-bytes';
import { bytesOf, type RenderOptions, type SegmentMaker } from './render';
import { passFiles, type SegmentTask } from './segment';
import { type PassLog, readPassLog, sharedBits } from './pass-log';

/**
 * An encoder of a segment has one thread, whatever machine makes it, so that the file is always the same: with more,
 * libx264 holds a rate to a buffer differently each time. Segments are made side by side instead.
 */
export const ENCODER_THREADS = 1;
/** A segment, and the whole, may be off what they were to come to by this much, as a share of it. */
const WITHIN = 0.015;
/** Segments that are off are made anew so often. */
const CORRECTIONS = 3;

type Options = Pick<RenderOptions, 'folder' | 'signal' | 'onProgress'> & { keepsFrames: boolean };

/** The segments of one file, as they are made: each has its name only once it is whole. */
export class SegmentWork {
  private readonly done = new Map<string, number>();
  private total: number;

  constructor(
    private readonly order: RenderOrder,
    private readonly maker: SegmentMaker,
    private readonly segments: readonly Segment[],
    private readonly options: Options,
  ) {
    this.total = order.plan.frames;
  }

  /** Where its whole segments lie. */
  made(): MadeSegment[] {
    return this.segments.map((segment, n) => ({ segment, file: this.wholeFile(n) }));
  }

  async inOnePass({ bits }: PictureMaking): Promise<void> {
    await this.each((n) => this.make(n, bits, null));
  }

  /** Looks all of it through, shares the bits out, and makes anew what does not come to its share. */
  async inTwoPasses({ bits }: PictureMaking): Promise<void> {
    this.total *= 2;
    const looked = await this.each((n) => this.look(n, bits));
    const shares = sharedBits(looked, bits);
    let asked = [...shares];
    await this.each((n) => this.make(n, asked[n] as number, 2));
    for (let round = 0; round < CORRECTIONS; round++) {
      const bytes = await this.each((n) => pictureBytes(this.wholeFile(n)));
      const off = this.off(shares, bytes);
      if (off.length === 0) break;
      asked = asked.map((rate, n) =>
        off.includes(n) ? rate * ((shares[n] as number) / this.rate(n, bytes)) : rate,
      );
      for (const n of off) {
        await rm(this.wholeFile(n), { force: true });
        this.total += (this.segments[n] as Segment).frames;
      }
      await Promise.all(off.map((n) => this.make(n, asked[n] as number, 2, `correction ${round}`)));
    }
    await this.dropFrames();
  }

  /** Segments that keep the whole from what it is to come to. */
  private off(shares: readonly number[], bytes: readonly number[]): number[] {
    const wanted = shares.reduce((sum, rate, n) => sum + (rate * this.seconds(n)) / 8, 0);
    const is = bytes.reduce((sum, one) => sum + one, 0);
    if (Math.abs(is / wanted - 1) <= WITHIN) return [];
    const side = Math.sign(is - wanted);
    return this.segments.flatMap((_, n) => {
      const own = this.rate(n, bytes) / (shares[n] as number) - 1;
      return own * side > WITHIN / 2 ? [n] : [];
    });
  }

  private seconds(n: number): number {
    return secondsOf((this.segments[n] as Segment).frames, this.order.plan.rate);
  }

  /** Video bits a second that a segment came to. */
  private rate(n: number, bytes: readonly number[]): number {
    return ((bytes[n] as number) * 8) / this.seconds(n);
  }

  /** What a segment is called while it is not whole. */
  private partFile(n: number): string {
    return path.join(this.options.folder, `${n}.mkv`);
  }

  private wholeFile(n: number): string {
    return path.join(this.options.folder, `${n}.made.mkv`);
  }

  /** Makes the first pass of a segment. @returns what it wrote down. */
  private async look(n: number, bits: number): Promise<PassLog> {
    const whole = path.join(this.options.folder, `${n}.looked.mkv`);
    if ((await bytesOf(whole)) === null) await this.encode('look', n, bits, 1, whole);
    this.tell('look', n);
    const log = await readFile(passFiles(this.partFile(n)).log, 'utf8');
    return readPassLog(log, this.seconds(n));
  }

  /** @param step for which its frames count as done. */
  private async make(n: number, bits: number, pass: 2 | null, step = 'make'): Promise<void> {
    const whole = this.wholeFile(n);
    if ((await bytesOf(whole)) === null) await this.encode(step, n, bits, pass, whole);
    this.tell(step, n);
  }

  private async encode(
    step: string,
    n: number,
    bits: number,
    pass: SegmentTask['pass'],
    whole: string,
  ): Promise<void> {
    const { signal, keepsFrames } = this.options;
    const file = this.partFile(n);
    const segment = this.segments[n] as Segment;
    await this.maker.make(
      { segment, file, bits, pass, keepsFrames, threads: ENCODER_THREADS },
      (frames) => this.tell(step, n, frames),
      signal,
    );
    await rename(file, whole);
  }

  private tell(step: string, n: number, frames = (this.segments[n] as Segment).frames): void {
    const name = `${n} ${step}`;
    this.done.set(name, Math.max(frames, this.done.get(name) ?? 0));
    const done = [...this.done.values()].reduce((sum, value) => sum + value, 0);
    this.options.onProgress?.({ done, total: this.total });
  }

  /** Frames that first passes kept. */
  private async dropFrames(): Promise<void> {
    const { folder } = this.options;
    for (const name of await readdir(folder)) {
      if (name.endsWith('.frames')) await rm(path.join(folder, name), { force: true });
    }
  }

  /** Does something with all segments at once. */
  private each<R>(act: (n: number) => Promise<R>): Promise<R[]> {
    return Promise.all(this.segments.map((_, n) => act(n)));
  }
}
