import type { Source } from '@core/master/source';
import type { Size } from '@core/picture/size';
import { codecString } from '@core/rate/codec-string';
import { lowestLevel } from '@core/rate/level';
import { rateValue } from '@core/time/frame-rate';
import { TroubleError } from '@core/trouble/trouble';
import { PARAMETERS_IN_STREAM } from '../store/avc-stream';
import { Signal } from '../worker/signal';

/** A key frame every so many frames: a step back decodes at most this many. */
const KEY_FRAME_EVERY = 12;
/** Bits a sample: a proxy is looked at, never exported. */
const BITS_A_SAMPLE = 0.07;
const MIN_BITRATE = 300_000;
/** Frames that wait to be encoded, at most. */
const MAX_WAITING = 4;

/** A coded picture of a proxy. */
export interface ProxyPacket {
  data: Uint8Array<ArrayBuffer>;
  key: boolean;
  /** From the master's first frame, in microseconds. */
  timestamp: number;
  duration: number;
}

/** Encodes the pictures of a proxy, span by span. */
export class ProxyEncoder {
  /** How the pictures are decoded; known once the first is encoded. */
  config: VideoDecoderConfig | null = null;
  private readonly bell = new Signal();
  private readonly encoder: VideoEncoder;
  private packets: ProxyPacket[] = [];
  private sinceKey = 0;
  private failure: unknown = null;

  private constructor(config: VideoEncoderConfig) {
    this.encoder = new VideoEncoder({
      output: (chunk, metadata) => {
        this.config ??= metadata?.decoderConfig ?? null;
        const data = new Uint8Array(chunk.byteLength);
        chunk.copyTo(data);
        const { timestamp, duration, type } = chunk;
        this.packets.push({ data, key: type === 'key', timestamp, duration: duration ?? 0 });
      },
      error: (error) => {
        this.failure ??= error;
        this.bell.ring();
      },
    });
    this.encoder.ondequeue = () => this.bell.ring();
    this.encoder.configure(config);
  }

  /** @param size of the proxy's pictures, even. @throws TroubleError `encoder-missing`. */
  static async open({ rate }: Source, size: Size): Promise<ProxyEncoder> {
    const framerate = rateValue(rate);
    const bitrate = Math.round(Math.max(MIN_BITRATE, size.width * size.height * framerate * BITS_A_SAMPLE));
    const config: VideoEncoderConfig = {
      codec: codecString(
        { codec: 'avc', profile: 'high', level: lowestLevel(size, rate, bitrate) },
        size,
        rate,
      ),
      ...size,
      bitrate,
      bitrateMode: 'variable',
      latencyMode: 'realtime',
      framerate,
      ...PARAMETERS_IN_STREAM,
    };
    const { supported } = await VideoEncoder.isConfigSupported(config);
    if (!supported) throw new TroubleError('encoder-missing', { ...size });
    return new ProxyEncoder(config);
  }

  /** The next picture is a key frame: what follows decodes without what came before. */
  beginSpan(): void {
    this.sinceKey = 0;
  }

  /** Takes a picture; it stays the caller's. */
  async add(picture: VideoFrame): Promise<void> {
    while (this.encoder.encodeQueueSize >= MAX_WAITING && this.failure === null) await this.bell.rung();
    if (this.failure !== null) throw this.failure;
    this.encoder.encode(picture, { keyFrame: this.sinceKey % KEY_FRAME_EVERY === 0 });
    this.sinceKey += 1;
  }

  /** Takes the packets that were encoded since the last call. */
  take(): ProxyPacket[] {
    const { packets } = this;
    this.packets = [];
    return packets;
  }

  /** Waits until every picture that was added can be taken. */
  async finishSpan(): Promise<void> {
    await this.encoder.flush();
    if (this.failure !== null) throw this.failure;
  }

  close(): void {
    if (this.encoder.state !== 'closed') this.encoder.close();
  }
}
