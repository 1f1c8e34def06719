import { registerAacEncoder } from '@mediabunny/aac-encoder';
import {
  AudioSample,
  AudioSampleSource,
  type EncodedPacket,
  Mp4OutputFormat,
  NullTarget,
  Output,
  Quality,
} from 'mediabunny';
import type { AudioEncodeSettings } from '@core/render/encode-settings';
import type { RenderPlan } from '@core/render/plan';
import type { Planes } from '@core/sound/channels';
import { toSeconds } from '@core/time/frame-rate';
import { throwIfStopped } from '../worker/serve-task';
import { clipSound, type ReaderOf } from '@render/clip-sound';
import { loudnessGain } from '@render/loudness-gain';
import type { PacketLog } from './packet-log';

/**
 * By codec, samples that a packet holds, and those that its encoder puts before the first: for AAC the initial padding of
 * FFmpeg's native encoder. The track starts that much before zero, so that the file's edit list cuts them away again.
 * What Opus puts before is cut away by its own head (RFC 7845, 4.2).
 */
const CODING = { aac: { packet: 1024, delay: 1024 }, opus: { packet: 960, delay: 0 } };
/** Packets that an encoder which takes up in the middle is given before those that are kept. */
const WARM_UP = 8;

/** Encodes the sound of one file into its log, from where that ends. */
export class AudioTrackEncoder {
  private constructor(
    private readonly log: PacketLog,
    private readonly progress: AsyncGenerator<number, void, undefined> | null,
    private heard = 0,
  ) {}

  static open(
    readerOf: ReaderOf,
    plan: RenderPlan,
    sound: AudioEncodeSettings | null,
    log: PacketLog,
    signal: AbortSignal,
  ): AudioTrackEncoder {
    const progress = sound && !log.hasSound ? encodeSound(readerOf, plan, sound, log, signal) : null;
    return new AudioTrackEncoder(log, progress);
  }

  /** Encodes sound up to a time of the clip, in seconds. */
  async to(seconds: number): Promise<void> {
    while (this.progress && this.heard < seconds) {
      const { value, done } = await this.progress.next();
      this.heard = done ? Infinity : value;
    }
  }

  /** Encodes what is left. */
  async finish(): Promise<void> {
    await this.to(Infinity);
    if (this.progress && !this.log.hasSound) this.log.endSound();
  }

  async stop(): Promise<void> {
    await this.progress?.return().catch(() => undefined);
  }
}

/** @returns each time how far it is, in seconds of the clip. */
async function* encodeSound(
  readerOf: ReaderOf,
  plan: RenderPlan,
  sound: AudioEncodeSettings,
  log: PacketLog,
  signal: AbortSignal,
): AsyncGenerator<number, void, undefined> {
  const { sampleRate } = sound;
  const gain = await loudnessGain(readerOf, plan, sound, signal);
  throwIfStopped(signal);
  const { packet, delay } = CODING[sound.codec === 'opus' ? 'opus' : 'aac'];
  const known = log.soundPackets;
  const skipped = Math.max(0, known - WARM_UP);
  const end = toSeconds(plan.frames, plan.rate);
  const encoder = await SoundEncoder.open(sound, (made, config) => {
    if (config) log.setConfig('sound', config);
    // Those of the warming up are there already.
    const place = Math.round((made.timestamp * sampleRate + delay) / packet);
    if (place < known) return;
    const data = new Uint8Array(made.data);
    log.addSound({ data, key: true, timestamp: made.timestamp, duration: computeDuration(made, end) });
  });
  try {
    let next = 0;
    const from = skipped * packet;
    for await (const planes of clipSound(readerOf, plan, { ...sound, gain })) {
      const length = planes[0]?.length ?? 0;
      const cut = Math.min(length, Math.max(0, from - next));
      const kept = cut === 0 ? planes : planes.map((plane) => plane.slice(cut));
      await encoder.add(kept, (next + cut - delay) / sampleRate);
      next += length;
      throwIfStopped(signal);
      yield next / sampleRate;
    }
    await encoder.finish();
  } finally {
    await encoder.close();
  }
}

/**
 * Packets hold a fixed number of samples: one that reaches past the end of the clip lasts until the end only, so that
 * the track and its edit end there (ISO/IEC 14496-12, 8.6.1.2 and 8.6.6).
 */
const computeDuration = ({ timestamp, duration }: EncodedPacket, end: number): number =>
  Math.max(0, Math.min(duration, end - timestamp));

/** An encoder of sound whose packets go into no file. */
class SoundEncoder {
  private constructor(
    private readonly output: Output,
    private readonly source: AudioSampleSource,
    private readonly sampleRate: number,
  ) {}

  static async open(
    { codec, bits, sampleRate }: AudioEncodeSettings,
    take: (packet: EncodedPacket, config: AudioDecoderConfig | undefined) => void,
  ): Promise<SoundEncoder> {
    // Always this encoder, also where the browser has one: only its delay is known.
    if (codec === 'aac') registerAacEncoder();
    const source = new AudioSampleSource({
      codec: codec === 'opus' ? 'opus' : 'aac',
      quality: new Quality({ bitrate: bits }),
      onEncodedPacket: (packet, meta) => take(packet, meta?.decoderConfig),
    });
    const output = new Output({
      format: new Mp4OutputFormat({ fastStart: false }),
      target: new NullTarget(),
    });
    output.addAudioTrack(source);
    await output.start();
    return new SoundEncoder(output, source, sampleRate);
  }

  /** @param timestamp of the first sample, in seconds. */
  async add(planes: Planes, timestamp: number): Promise<void> {
    const length = planes[0]?.length ?? 0;
    if (length === 0) return;
    const data = new Float32Array(length * planes.length);
    planes.forEach((plane, channel) => data.set(plane, channel * length));
    const sample = new AudioSample({
      data,
      format: 'f32-planar',
      numberOfChannels: planes.length,
      sampleRate: this.sampleRate,
      timestamp,
    });
    await this.source.add(sample).finally(() => sample.close());
  }

  async finish(): Promise<void> {
    await this.output.finalize();
  }

  async close(): Promise<void> {
    await this.output.cancel().catch(() => undefined);
  }
}
