import { type AudioSampleSource, VideoSample, type VideoSampleSource } from 'mediabunny';
import type { DecodeRun } from '@core/render/decode-runs';
import { plannedFrame, type RenderPlan, segmentAt } from '@core/render/plan';
import { exportSound } from '@core/render/export-sound';
import { secondsOf } from '@core/time/frame-rate';
import { TroubleError } from '@core/trouble/trouble';
import { FrameRenderer } from './frame-renderer';
import type { ReaderPool } from '../read/reader-pool';
import { cutSound } from './sound-cutter';
import type { Maker, OutputRequest, StoredFile } from './maker';

/** Decoded frames that wait for one output at most. */
const MOST_WAITING = 3;
/** Sound is encoded this far ahead of the picture, in seconds. */
const SOUND_AHEAD = 1;

type SoundTime = ReturnType<typeof cutSound>;

/** A clip being made: takes decoded master frames in order and draws of them what its plan shows. */
export class ExportOutput {
  /** The next output frame. */
  next = 0;
  private heard = 0;
  private last: Promise<void> = Promise.resolve();
  private readonly waiting: Promise<void>[] = [];
  /** Why no frame is taken any more. */
  private failure: unknown = null;
  private sound: SoundTime | null = null;
  private renderer: FrameRenderer | null = null;

  private constructor(
    readonly plan: RenderPlan,
    private readonly file: StoredFile,
    private readonly picture: VideoSampleSource,
  ) {}

  /** Of the file so far. */
  get bytes(): number {
    return this.file.bytes;
  }

  /** @throws TroubleError when its maker cannot open it. */
  static async open(maker: Maker, request: OutputRequest, readers: ReaderPool): Promise<ExportOutput> {
    const { file, picture, sound } = await maker.open(request);
    const made = new ExportOutput(request.plan, file, picture);
    try {
      await made.start(sound, readers);
      return made;
    } catch (error) {
      await made.discard();
      throw error;
    }
  }

  private async start(sound: AudioSampleSource | null, readers: ReaderPool): Promise<void> {
    const { plan } = this;
    const facts = exportSound(plan);
    await this.file.output.start();
    this.sound = facts && sound ? cutSound((source) => readers.of(source), plan, facts, sound) : null;
    this.renderer = await FrameRenderer.create(plan);
  }

  /**
   * Takes a decoded master frame, to be drawn after those before it; waits only while too many wait already, so that
   * outputs that are made together do not wait for each other. The sample stays the caller's.
   * @throws what went wrong with a frame before it.
   */
  async offer(run: DecodeRun, masterFrame: number, sample: VideoSample): Promise<void> {
    if (this.waiting.length >= MOST_WAITING) await this.waiting[0];
    if (this.failure !== null) throw this.failure;
    const own = sample.clone();
    const task = this.last
      .then(() => this.take(run, masterFrame, own))
      .finally(() => {
        own.close();
        this.waiting.shift();
      });
    task.catch((error: unknown) => {
      this.failure ??= error;
    });
    this.last = task;
    this.waiting.push(task);
  }

  /** Draws and encodes every output frame that shows a master frame: none, one, or more at another rate. */
  private async take(run: DecodeRun, masterFrame: number, sample: VideoSample): Promise<void> {
    const { plan } = this;
    for (; this.next < plan.frames; this.next++) {
      const { range } = segmentAt(plan, this.next);
      if (range > run.lastRange) break;
      const planned = plannedFrame(plan, this.next);
      if (planned.masterFrame !== masterFrame) break;
      await this.encode(planned, sample);
    }
    while (this.sound && this.heard < secondsOf(this.next, plan.rate) + SOUND_AHEAD) {
      const { value, done } = await this.sound.next();
      this.heard = done ? Infinity : value;
    }
  }

  private async encode(planned: ReturnType<typeof plannedFrame>, sample: VideoSample): Promise<void> {
    const { plan, next, renderer } = this;
    if (!renderer) throw new Error('the output is not open');
    const timestamp = secondsOf(next, plan.rate);
    const duration = secondsOf(next + 1, plan.rate) - timestamp;
    const decoded = sample.toVideoFrame();
    let drawn: VideoSample;
    try {
      const [stamp, long] = [Math.round(timestamp * 1e6), Math.round(duration * 1e6)];
      drawn = new VideoSample(await renderer.draw(decoded, planned, stamp, long), { timestamp, duration });
    } finally {
      decoded.close();
    }
    try {
      await this.picture.add(drawn);
    } finally {
      drawn.close();
    }
  }

  /** @throws TroubleError `damaged` when frames are missing. */
  async finish(nameOf: (source: number) => string): Promise<void> {
    await this.last;
    const { next, plan } = this;
    if (next < plan.frames) {
      const file = nameOf(segmentAt(plan, next).source);
      throw new TroubleError('damaged', { file, detail: `frame ${next} of the clip is missing` });
    }
    await this.file.finalize();
  }

  /** Keeps the finished file under its name. */
  keep(): Promise<void> {
    return this.file.keep();
  }

  /** Leaves nothing behind. */
  async discard(): Promise<void> {
    await this.last.catch(() => undefined);
    await this.file.discard();
  }
}
