import type { DecodeRun } from '@core/render/decode-runs';
import { subtractSound, type EncodeSettings } from '@core/render/encode-settings';
import type { RenderPlan } from '@core/render/plan';
import { toSeconds } from '@core/time/frame-rate';
import { shortHash } from '@core/figures/short-hash';
import type { VideoSample } from 'mediabunny';
import { withFiller } from '../store/avc-stream';
import { KeptLog } from '../store/kept-log';
import { StoredOutput } from '../store/stored-output';
import type { ReaderOf } from '@render/clip-sound';
import { createContainer, mux, type Packet } from '@render/mux';
import { PacketLog } from './packet-log';
import { type FrameSpan, type GroupSink, VideoTrackEncoder } from './video-track-encoder';
import { AudioTrackEncoder } from './audio-track-encoder';

/** Request for one file: its plan, its encode settings, and the name that it is stored under. */
export interface OutputRequest {
  name: string;
  plan: RenderPlan;
  making: EncodeSettings;
}

/** Sound is encoded this far ahead of the picture, in seconds. */
const SOUND_AHEAD = 1;

/** Where the packets of a file that is being made lie. */
const logName = (name: string): string => `${name}.packets`;

/** A file being made. What is whole of it outlives the page that made it. */
export class ExportOutput {
  private file: StoredOutput | null = null;

  private constructor(
    private readonly request: OutputRequest,
    private readonly log: PacketLog,
    private readonly sound: AudioTrackEncoder,
    private readonly picture: VideoTrackEncoder | null,
  ) {}

  /** Takes up what an earlier page made of the same file. @throws TroubleError when it cannot be encoded. */
  static async open(request: OutputRequest, readerOf: ReaderOf, signal: AbortSignal): Promise<ExportOutput> {
    const { name, plan, making } = request;
    const kept = await KeptLog.open('exports', logName(name));
    try {
      const log = PacketLog.open(kept, shortHash([plan, making]));
      const sink = createSink(log);
      const picture = making.picture && (await VideoTrackEncoder.open(plan, making.picture, sink));
      const sound = AudioTrackEncoder.open(readerOf, plan, making.sound, log, signal);
      return new ExportOutput(request, log, sound, picture);
    } catch (error) {
      kept.close();
      throw error;
    }
  }

  get plan(): RenderPlan {
    return this.request.plan;
  }

  /** Frames to draw, some more than once where a rate is landed on. */
  get total(): number {
    return this.picture?.total ?? 0;
  }

  /** Of these, those that are there. */
  get done(): number {
    return this.picture?.done ?? 0;
  }

  /** Of the file. */
  get bytes(): number {
    return this.file?.bytes ?? 0;
  }

  /** Output frames that have to be decoded for. */
  spans(): FrameSpan[] {
    return this.picture?.spans() ?? [];
  }

  begin(span: FrameSpan): void {
    this.picture?.begin(span);
  }

  /** Takes a decoded master frame, which stays the caller's. @throws what went wrong with one before it. */
  async offer(run: DecodeRun, masterFrame: number, sample: VideoSample): Promise<void> {
    await this.picture?.offer(run, masterFrame, sample);
    await this.sound.to(toSeconds(this.done, this.plan.rate) + SOUND_AHEAD);
  }

  /** @returns whether some of its pictures have to be made again. @throws TroubleError `damaged` */
  async settle(nameOf: (source: number) => string): Promise<boolean> {
    const { plan, making } = this.request;
    if (making.picture?.kind === 'size') {
      await this.sound.finish();
      this.picture?.spare(subtractSound(plan, making, this.log.soundBytes));
    }
    return (await this.picture?.settle(nameOf)) ?? false;
  }

  /** Writes the file; it has no name yet. */
  async finish(): Promise<void> {
    await this.sound.finish();
    const { name, plan, making } = this.request;
    this.file = await StoredOutput.open('exports', name, createContainer(making.format));
    await mux(this.file.output, plan, making.format, this.log.streams());
    await this.file.finalize();
  }

  /** Keeps the finished file under its name, and nothing else of it. */
  async keep(): Promise<void> {
    await this.file?.keep();
    this.picture?.close();
    await this.log.remove();
  }

  /** Stops. @param forGood leaves nothing behind; else what is whole waits to be taken up. */
  async stop(forGood: boolean): Promise<void> {
    await this.picture?.stop();
    await this.sound.stop();
    await this.file?.discard();
    if (forGood) await this.log.remove();
    else this.log.close();
  }
}

/** A log as the place where groups go; what is missing of a constant rate is filled up. */
function createSink(log: PacketLog): GroupSink {
  /** The last picture of a group waits for what is filled in behind it. */
  let held: { group: number; packet: Packet } | null = null;
  const flushPacket = () => {
    if (held) log.addPicture(held.group, held.packet);
    held = null;
  };
  return {
    has: (group) => log.has(group),
    bytesOf: (group) => log.bytesOf(group),
    begin: (group) => {
      flushPacket();
      log.begin(group);
    },
    add(group, packet, config) {
      if (config) log.setConfig('picture', config);
      flushPacket();
      held = { group, packet };
    },
    end(group, filling) {
      if (held) held.packet = { ...held.packet, data: withFiller(held.packet.data, filling) };
      flushPacket();
      log.end(group);
    },
  };
}
