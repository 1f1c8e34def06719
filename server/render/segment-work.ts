import { readdir, readFile, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import type { VideoEncodeSettings } from '../../src/core/render/encode-settings';
import { canFeedDecoder } from '../../src/core/rate/buffer';
import { rateValue, toSeconds } from '../../src/core/time/frame-rate';
import { retargetSegments } from './retarget-segments';
import type { SegmentBits } from './encoder-args';
import type { MadeSegment } from './join';
import type { RenderOrder, Segment } from './order';
import { listPacketBytes } from './packet-bytes';
import { getFileSize, type RenderOptions, type SegmentMaker } from './render';
import { passFiles, type SegmentTask } from './segment';
import { type PassLog, readPassLog, shareOut } from './pass-log';

/**
 * An encoder of a segment has one thread, whatever machine makes it, so that the file is always the same: with more,
 * libx264 holds a rate to a buffer differently each time. Segments are made side by side instead.
 */
export const ENCODER_THREADS = 1;
/** Segments that are off are made anew so often. */
const CORRECTIONS = 3;
/** A frame of a first pass takes so much of the time of one of a second (measured). */
const LOOKED = 0.5;
/** A first pass foresees what pictures come to; a variable rate is held under its most where they could be so much more. */
const UNFORESEEN = 1.25;

type Options = Pick<RenderOptions, 'folder' | 'signal' | 'onProgress'> & { keepsFrames: boolean };

/** The segments of one file, as they are made: each has its name only once it is whole. */
export class SegmentWork {
  /** How much is done of each step of each segment, and of all there is, in frames of a second pass. */
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

  async inOnePass({ bits }: VideoEncodeSettings): Promise<void> {
    await this.each((n) => this.make(n, { bits, held: true }, null));
  }

  /**
   * Looks all of it through, shares the bits out, and makes anew what does not come to its share.
   * @param spare bytes besides what its rate comes to, once they are known.
   */
  async inTwoPasses(picture: VideoEncodeSettings, spare: () => Promise<number>): Promise<void> {
    this.total *= 1 + LOOKED;
    const looked = await this.each((n) => this.look(n, picture.bits));
    const { frames, rate } = this.order.plan;
    const spared = ((await spare()) * 8) / toSeconds(frames, rate);
    const shares = shareOut(looked, Math.min(picture.mostBits, picture.bits + spared), picture.mostBits);
    let asked = shares.map(({ bits, pictures }): SegmentBits => {
      const most = pictures.map((one) => one * UNFORESEEN);
      const isUnder = canFeedDecoder(most, rateValue(rate), picture.mostBits);
      // Where no level is given, libx264 picks one by what the rate is held to: all segments need the same.
      return { bits, held: picture.level === null || !isUnder };
    });
    await this.each((n) => this.make(n, asked[n] as SegmentBits, 2));
    for (let round = 0; round < CORRECTIONS; round++) {
      const came = await this.each(async (n) => ({
        ...{ seconds: this.seconds(n), share: shares[n]?.bits ?? 0, asked: asked[n] as SegmentBits },
        pictures: (await listPacketBytes(this.wholeFile(n))).map((bytes) => 8 * bytes),
      }));
      const anew = retargetSegments(came, picture.mostBits);
      if (anew.every((given) => given === null)) break;
      await this.each((n) => this.correct(n, anew[n] ?? null, round));
      asked = asked.map((before, n) => anew[n] ?? before);
    }
    await this.dropFrames();
  }

  /** Makes a segment anew; null where it stays as it is. */
  private async correct(n: number, given: SegmentBits | null, round: number): Promise<void> {
    if (given === null) return;
    this.total += (this.segments[n] as Segment).frames;
    await rm(this.wholeFile(n), { force: true });
    await this.make(n, given, 2, `correction ${round}`);
  }

  private seconds(n: number): number {
    return toSeconds((this.segments[n] as Segment).frames, this.order.plan.rate);
  }

  /** Name of a segment's file while it is being written. */
  private partFile(n: number): string {
    return path.join(this.options.folder, `${n}.mkv`);
  }

  private wholeFile(n: number): string {
    return path.join(this.options.folder, `${n}.made.mkv`);
  }

  /** Makes the first pass of a segment. @returns what it wrote down. */
  private async look(n: number, bits: number): Promise<PassLog> {
    const whole = path.join(this.options.folder, `${n}.looked.mkv`);
    if ((await getFileSize(whole)) === null) await this.encode('look', n, { bits, held: false }, 1, whole);
    this.tell('look', n);
    const log = await readFile(passFiles(this.partFile(n)).log, 'utf8');
    return readPassLog(log, this.seconds(n));
  }

  /** @param step for which its frames count as done. */
  private async make(n: number, given: SegmentBits, pass: 2 | null, step = 'make'): Promise<void> {
    const whole = this.wholeFile(n);
    if ((await getFileSize(whole)) === null) await this.encode(step, n, given, pass, whole);
    this.tell(step, n);
  }

  private async encode(
    step: string,
    n: number,
    given: SegmentBits,
    pass: SegmentTask['pass'],
    whole: string,
  ): Promise<void> {
    const { signal, keepsFrames } = this.options;
    const file = this.partFile(n);
    const segment = this.segments[n] as Segment;
    await this.maker.make(
      { ...given, segment, file, pass, keepsFrames, threads: ENCODER_THREADS },
      (frames) => this.tell(step, n, frames),
      signal,
    );
    await rename(file, whole);
  }

  private tell(step: string, n: number, frames = (this.segments[n] as Segment).frames): void {
    const name = `${n} ${step}`;
    const worth = step === 'look' ? LOOKED : 1;
    this.done.set(name, Math.max(frames * worth, this.done.get(name) ?? 0));
    const done = [...this.done.values()].reduce((sum, value) => sum + value, 0);
    this.options.onProgress?.({ done: Math.round(done), total: Math.round(this.total) });
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
