import { registerAacEncoder } from '@mediabunny/aac-encoder';
import { AudioSampleSource, type Output, Quality, VideoSample, VideoSampleSource } from 'mediabunny';
import { AUDIO_BITS } from '@core/rate/bit-rate';
import { highProfileCodec, lowestLevel } from '@core/rate/level';
import type { DecodeRun } from '@core/render/decode-runs';
import { frameOf, type RenderPlan, segmentAt } from '@core/render/plan';
import { type ExportSound, exportSound } from '@core/render/export-sound';
import { rateValue, secondsOf } from '@core/time/frame-rate';
import { TroubleError } from '@core/trouble/trouble';
import { FrameRenderer } from './frame-renderer';
import type { ReaderPool } from '../read/reader-pool';
import { cutSound } from './sound-cutter';
import { StoredMp4 } from '../store/stored-mp4';

/** One file to make: its plan, its video bits a second, and the name it is stored under. */
export interface OutputRequest {
  name: string;
  plan: RenderPlan;
  videoBits: number;
}

/** A key frame at least this often, in seconds: phones step and outlets cut at key frames. */
const KEY_FRAME_SECONDS = 2;
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
    private readonly file: StoredMp4,
    private readonly picture: VideoSampleSource,
  ) {}

  /** Of the file so far. */
  get bytes(): number {
    return this.file.bytes;
  }

  /** @throws TroubleError `encoder-missing` when this browser cannot encode the canvas. */
  static async open({ name, plan, videoBits }: OutputRequest, readers: ReaderPool): Promise<ExportOutput> {
    const codec = await encoderFor(plan, videoBits);
    const file = await StoredMp4.open('exports', name, 'reserve');
    const picture = new VideoSampleSource({
      codec: 'avc',
      fullCodecString: codec,
      quality: new Quality({ bitrate: videoBits, bitrateMode: 'variable' }),
      latencyMode: 'quality',
      keyFrameInterval: KEY_FRAME_SECONDS,
    });
    const made = new ExportOutput(plan, file, picture);
    try {
      await made.start(readers);
      return made;
    } catch (error) {
      await made.discard();
      throw error;
    }
  }

  private async start(readers: ReaderPool): Promise<void> {
    const { plan, picture } = this;
    const { output } = this.file;
    output.addVideoTrack(picture, { frameRate: rateValue(plan.rate), maximumPacketCount: plan.frames });
    const facts = exportSound(plan);
    const sound = facts ? addSound(output, facts, plan) : null;
    await output.start();
    this.sound = facts && sound ? cutSound((at) => readers.of(at), plan, facts, sound) : null;
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
      const planned = frameOf(plan, this.next);
      if (planned.masterFrame !== masterFrame) break;
      await this.encode(planned, sample);
    }
    while (this.sound && this.heard < secondsOf(this.next, plan.rate) + SOUND_AHEAD) {
      const { value, done } = await this.sound.next();
      this.heard = done ? Infinity : value;
    }
  }

  private async encode(planned: ReturnType<typeof frameOf>, sample: VideoSample): Promise<void> {
    const { plan, next, renderer } = this;
    if (!renderer) throw new Error('the output is not open');
    const timestamp = secondsOf(next, plan.rate);
    const duration = secondsOf(next + 1, plan.rate) - timestamp;
    const decoded = sample.toVideoFrame();
    let drawn: VideoSample;
    try {
      const [at, long] = [Math.round(timestamp * 1e6), Math.round(duration * 1e6)];
      drawn = new VideoSample(await renderer.draw(decoded, planned, at, long), { timestamp, duration });
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

/** The codec string of the lowest level that fits. */
async function encoderFor(plan: RenderPlan, videoBits: number): Promise<string> {
  const { width, height } = plan;
  const codec = highProfileCodec(lowestLevel(plan, plan.rate, videoBits));
  const { supported } = await VideoEncoder.isConfigSupported({
    codec,
    width,
    height,
    bitrate: videoBits,
    framerate: rateValue(plan.rate),
  });
  if (!supported) throw new TroubleError('encoder-missing', { width, height });
  return codec;
}

function addSound(output: Output, { sampleRate }: ExportSound, plan: RenderPlan): AudioSampleSource {
  // Always this encoder, also where the browser has one: only its delay is known.
  registerAacEncoder();
  const source = new AudioSampleSource({ codec: 'aac', quality: new Quality({ bitrate: AUDIO_BITS }) });
  // An AAC packet holds 1024 samples; the encoder adds a few at the ends.
  const packets = Math.ceil((secondsOf(plan.frames, plan.rate) * sampleRate) / 1024) + 8;
  output.addAudioTrack(source, { maximumPacketCount: packets });
  return source;
}
