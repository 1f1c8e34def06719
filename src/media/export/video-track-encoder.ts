import type { VideoSample } from 'mediabunny';
import type { DecodeRun } from '@core/render/decode-runs';
import type { VideoEncodeSettings } from '@core/render/encode-settings';
import { plannedFrame, type RenderPlan, findSegment } from '@core/render/plan';
import { GroupRates } from '@core/rate/group-rates';
import { type Group, splitIntoGroups } from '@core/rate/groups';
import { rateValue, toSeconds } from '@core/time/frame-rate';
import { TroubleError } from '@core/trouble/trouble';
import { FrameRenderer } from './frame-renderer';
import type { Packet } from '@render/mux';
import type { StreamConfig } from './packet-log';
import { PictureEncoder } from './picture-encoder';

/** Decoded frames that wait for one file at most. */
const MAX_WAITING = 3;

/** Where encoded groups of pictures go. */
export interface GroupSink {
  /** Tells whether a group is there already. */
  has(group: number): boolean;
  begin(group: number): void;
  add(group: number, packet: Packet, config: StreamConfig | undefined): void;
  /** A group is whole. @param filling bytes by which it falls short of a constant rate. */
  end(group: number, filling: number): void;
  /** Of the pictures of a group that is there. */
  bytesOf(group: number): number;
}

/** Output frames in a row, half-open. */
export interface FrameSpan {
  from: number;
  to: number;
}

/** Draws and encodes the pictures of one file, group by group; those that are there are left as they are. */
export class VideoTrackEncoder {
  private readonly groups: Group[];
  private readonly rates: GroupRates;
  /** Groups that are made in this round, and the bits a second that were asked for them. */
  private readonly wanted = new Map<number, number | null>();
  /** Pictures that came of the groups that are being made. */
  private readonly came = new Map<number, { frames: number; bytes: number }>();
  private span: FrameSpan = { from: 0, to: 0 };
  private next = 0;
  private drawn = 0;
  /** Frames of groups that were there and are made again. */
  private again = 0;
  private last: Promise<void> = Promise.resolve();
  private readonly waiting: Promise<void>[] = [];
  /** Why no frame is taken any more. */
  private failure: unknown = null;
  private encoder: PictureEncoder | null = null;
  private renderer: FrameRenderer | null = null;

  private constructor(
    readonly plan: RenderPlan,
    private readonly picture: VideoEncodeSettings,
    private readonly sink: GroupSink,
  ) {
    this.groups = splitIntoGroups(plan.frames, picture.keyFrames);
    const seconds = this.groups.map(
      ({ start, frames }) => toSeconds(start + frames, plan.rate) - toSeconds(start, plan.rate),
    );
    this.rates = new GroupRates(picture, seconds);
    this.groups.forEach((_, group) => {
      if (sink.has(group)) this.rates.made(group, picture.bits, sink.bytesOf(group));
      else this.wanted.set(group, null);
    });
  }

  /** @throws TroubleError `encoder-missing`, and what drawing needs that is not there. */
  static async open(
    plan: RenderPlan,
    picture: VideoEncodeSettings,
    sink: GroupSink,
  ): Promise<VideoTrackEncoder> {
    const made = new VideoTrackEncoder(plan, picture, sink);
    try {
      made.encoder = await PictureEncoder.open(plan, picture, (packet, config) => made.take(packet, config));
      made.renderer = await FrameRenderer.create(plan);
      return made;
    } catch (error) {
      made.close();
      throw error;
    }
  }

  /** Frames to draw for the file: each once, and once more where its group is made again, as far as that is foreseen. */
  get total(): number {
    const foreseen = this.rates.foreseen() * rateValue(this.plan.rate);
    return this.plan.frames + this.again + Math.round(foreseen);
  }

  /** Of these, those that are there or were drawn. */
  get done(): number {
    return this.plan.frames + this.again - this.framesLeft() + this.drawn;
  }

  private framesLeft(): number {
    return [...this.wanted.keys()].reduce((sum, group) => sum + (this.groups[group]?.frames ?? 0), 0);
  }

  /** Output frames that have to be decoded for, in rows; none when all is there. */
  spans(): FrameSpan[] {
    const spans: FrameSpan[] = [];
    for (const group of [...this.wanted.keys()].sort((a, b) => a - b)) {
      const { start, frames } = this.groups[group] as Group;
      const last = spans[spans.length - 1];
      if (last?.to === start) last.to = start + frames;
      else spans.push({ from: start, to: start + frames });
    }
    return spans;
  }

  /** Begins to take frames for a row of output frames. */
  begin(span: FrameSpan): void {
    this.span = span;
    this.next = span.from;
  }

  /**
   * Takes a decoded master frame, to be drawn after those before it; waits only while too many wait already, so that
   * files that are made together do not wait for each other. The sample stays the caller's.
   * @throws what went wrong with a frame before it.
   */
  async offer(run: DecodeRun, masterFrame: number, sample: VideoSample): Promise<void> {
    if (this.waiting.length >= MAX_WAITING) await this.waiting[0];
    if (this.failure !== null) throw this.failure;
    const own = sample.clone();
    const task = this.last
      .then(() => this.draw(run, masterFrame, own))
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
  private async draw(run: DecodeRun, masterFrame: number, sample: VideoSample): Promise<void> {
    const { plan } = this;
    for (; this.next < this.span.to; this.next++) {
      if (findSegment(plan, this.next).range > run.lastRange) break;
      const planned = plannedFrame(plan, this.next);
      if (planned.masterFrame !== masterFrame) break;
      const group = this.findGroup(this.next);
      if (this.wanted.has(group)) await this.encode(this.next, group, planned, sample);
    }
  }

  private findGroup(frame: number): number {
    return Math.floor(frame / this.picture.keyFrames);
  }

  private async encode(
    frame: number,
    group: number,
    planned: ReturnType<typeof plannedFrame>,
    sample: VideoSample,
  ): Promise<void> {
    const { plan, renderer, encoder } = this;
    if (!renderer || !encoder) throw new Error('the pictures have no encoder');
    const first = frame === this.groups[group]?.start;
    if (first) {
      const bits = this.wanted.get(group) ?? this.rates.computeBits(group);
      this.wanted.set(group, bits);
      this.came.set(group, { frames: 0, bytes: 0 });
      this.sink.begin(group);
      encoder.ask(bits);
    }
    const stamp = Math.round(toSeconds(frame, plan.rate) * 1e6);
    const long = Math.round(toSeconds(frame + 1, plan.rate) * 1e6) - stamp;
    const decoded = sample.toVideoFrame();
    try {
      const drawn = await renderer.draw(decoded, planned, stamp, long);
      await encoder.encode(drawn, first).finally(() => drawn.close());
      this.drawn += 1;
    } finally {
      decoded.close();
    }
  }

  /** Takes an encoded picture; its group is whole with the last of them. */
  private take(packet: Packet, config: StreamConfig | undefined): void {
    const { plan } = this;
    const frame = Math.round(packet.timestamp * rateValue(plan.rate));
    const group = this.findGroup(frame);
    const came = this.came.get(group);
    if (!came) return;
    const timestamp = toSeconds(frame, plan.rate);
    const whole = { ...packet, timestamp, duration: toSeconds(frame + 1, plan.rate) - timestamp };
    came.frames += 1;
    came.bytes += packet.data.byteLength;
    this.sink.add(group, whole, config);
    if (came.frames < (this.groups[group]?.frames ?? 0)) return;
    this.came.delete(group);
    this.rates.made(group, this.wanted.get(group) ?? this.picture.bits, came.bytes);
    this.wanted.delete(group);
    this.drawn -= came.frames;
    this.sink.end(group, this.rates.filling(group));
  }

  /** Has a size landed on with so many bytes more, which the sound left. */
  spare(bytes: number): void {
    this.rates.spare(bytes);
  }

  /**
   * Ends a round: all that was offered is encoded.
   * @returns whether groups have to be made again for what the rate promises.
   * @throws TroubleError `damaged` when frames are missing.
   */
  async settle(nameOf: (source: number) => string): Promise<boolean> {
    await this.last;
    await this.encoder?.flush();
    const [missing] = this.wanted.keys();
    if (missing !== undefined) {
      const { start } = this.groups[missing] as Group;
      const file = nameOf(findSegment(this.plan, start).source);
      throw new TroubleError('damaged', {
        file,
        detail: `frame ${Math.max(start, this.next)} of the clip is missing`,
      });
    }
    const again = this.rates.again();
    for (const { group, bits } of again) {
      this.wanted.set(group, bits);
      this.again += this.groups[group]?.frames ?? 0;
    }
    return again.length > 0;
  }

  /** Stops, once what it is drawing is drawn. */
  async stop(): Promise<void> {
    await this.last.catch(() => undefined);
    this.close();
  }

  close(): void {
    this.encoder?.close();
  }
}
