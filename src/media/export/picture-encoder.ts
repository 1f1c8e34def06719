import type { VideoEncodeSettings } from '@core/render/encode-settings';
import type { RenderPlan } from '@core/render/plan';
import { codecString } from '@core/rate/codec-string';
import { rateValue } from '@core/time/frame-rate';
import { TroubleError } from '@core/trouble/trouble';
import { PARAMETERS_IN_STREAM, setLevel } from '../store/avc-stream';
import type { Packet } from '@render/mux';
import type { StreamConfig } from './packet-log';

/** Pictures that wait in the encoder at most. */
const MAX_QUEUED = 4;
/** A bit rate that is this near to the last one is left as it is. */
const NEAR = 0.01;
/** The scale of quantisers in VP9 and AV1, and that of H.264. */
const WIDE_SCALE = 63;
const AVC_SCALE = 51;

/** Where encoded pictures go. */
type OnPacket = (packet: Packet, config: StreamConfig | undefined) => void;

/** Encodes the pictures of one file, with the browser's encoder. Whoever opens it closes it. */
export class PictureEncoder {
  private readonly encoder: VideoEncoder;
  private failure: unknown = null;
  /** Lets a picture go on that waits for its place. */
  private wake: () => void = () => undefined;
  private bits = 0;

  private constructor(
    private readonly picture: VideoEncodeSettings,
    private readonly config: VideoEncoderConfig,
    take: OnPacket,
  ) {
    this.encoder = new VideoEncoder({
      output: (chunk, meta) => {
        try {
          take(this.toPacket(chunk), meta?.decoderConfig);
        } catch (error) {
          this.fail(error);
        }
      },
      error: (error) => this.fail(error),
    });
    this.encoder.addEventListener('dequeue', () => this.wake());
  }

  /** @throws TroubleError `encoder-missing` when this browser cannot encode the canvas so. */
  static async open(plan: RenderPlan, picture: VideoEncodeSettings, take: OnPacket): Promise<PictureEncoder> {
    const config = toConfig(plan, picture);
    // No browser promises that nothing is lost.
    const isAble = picture.kind !== 'lossless' && (await VideoEncoder.isConfigSupported(config)).supported;
    if (!isAble) throw new TroubleError('encoder-missing', { width: plan.width, height: plan.height });
    return new PictureEncoder(picture, config, take);
  }

  /** Sets the bitrate of the next pictures. @param bits a second. */
  ask(bits: number): void {
    const isNear = Math.abs(bits - this.bits) <= NEAR * this.bits;
    if (isNear || (this.bits > 0 && this.picture.kind === 'quality')) return;
    this.bits = bits;
    const quality = this.picture.kind === 'quality';
    this.encoder.configure(quality ? this.config : { ...this.config, bitrate: Math.round(bits) });
  }

  /** Encodes a picture; it stays the caller's to close. @throws what went wrong with one before it. */
  async encode(frame: VideoFrame, keyFrame: boolean): Promise<void> {
    while (this.encoder.encodeQueueSize >= MAX_QUEUED && this.failure === null) {
      await new Promise<void>((resolve) => (this.wake = resolve));
    }
    this.throwFailure();
    this.encoder.encode(frame, { keyFrame, ...this.quantised() });
  }

  /** Waits until all is encoded. @throws what went wrong. */
  async flush(): Promise<void> {
    this.throwFailure();
    if (this.bits > 0) await this.encoder.flush();
    this.throwFailure();
  }

  close(): void {
    if (this.encoder.state !== 'closed') this.encoder.close();
  }

  /** Nothing more comes of the encoder: whoever waits for it is told. */
  private fail(error: unknown): void {
    this.failure ??= error;
    this.wake();
  }

  private throwFailure(): void {
    if (this.failure !== null) throw this.failure;
  }

  private quantised(): VideoEncoderEncodeOptions {
    const { kind, codec, quantiser } = this.picture;
    if (kind !== 'quality') return {};
    const wide = Math.round((quantiser * WIDE_SCALE) / AVC_SCALE);
    return codec === 'avc' ? { avc: { quantizer: quantiser } } : { [codec]: { quantizer: wide } };
  }

  private toPacket(chunk: EncodedVideoChunk): Packet {
    const data = new Uint8Array(chunk.byteLength);
    chunk.copyTo(data);
    const key = chunk.type === 'key';
    const { codec, level } = this.picture;
    // The encoder takes no account of the level that it is asked for.
    if (key && codec === 'avc' && level !== null) setLevel(data, level);
    return { data, key, timestamp: chunk.timestamp / 1e6, duration: (chunk.duration ?? 0) / 1e6 };
  }
}

const MODES: Record<VideoEncodeSettings['kind'], VideoEncoderBitrateMode> = {
  ...{ constant: 'constant', variable: 'variable', size: 'variable' },
  ...{ quality: 'quantizer', lossless: 'quantizer' },
};

function toConfig({ width, height, rate }: RenderPlan, picture: VideoEncodeSettings): VideoEncoderConfig {
  const mode = MODES[picture.kind];
  return {
    codec: codecString(picture, { width, height }, rate),
    width,
    height,
    framerate: rateValue(rate),
    bitrateMode: mode,
    ...(mode !== 'quantizer' && { bitrate: picture.bits }),
    latencyMode: 'quality',
    ...(picture.codec === 'avc' && PARAMETERS_IN_STREAM),
  };
}
