import { EncodedPacketSink, type InputVideoTrack } from 'mediabunny';
import type { Span } from '@core/pass/spans';
import { Signal } from '../worker/signal';

/** Pictures that wait to be decoded or to be taken, at most: each of them may hold a whole frame. */
const MAX_AHEAD = 8;

/** A decoded picture with its stamp as the file has it, in seconds. */
export interface DecodedSpan {
  picture: VideoFrame;
  timestamp: number;
  duration: number;
}

/** Decodes spans of a file, one after another, as fast as their pictures are taken. */
export class SpanDecoder {
  private readonly ready: VideoFrame[] = [];
  private readonly stamps = new Map<number, { timestamp: number; duration: number }>();
  private readonly bell = new Signal();
  private readonly packets: EncodedPacketSink;
  private readonly decoder: VideoDecoder;
  private failure: unknown = null;

  private constructor(track: InputVideoTrack, config: VideoDecoderConfig) {
    this.packets = new EncodedPacketSink(track);
    this.decoder = new VideoDecoder({
      output: (picture) => {
        this.ready.push(picture);
        this.bell.ring();
      },
      error: (error) => this.fail(error),
    });
    this.decoder.ondequeue = () => this.bell.ring();
    this.decoder.configure(config);
  }

  static async open(track: InputVideoTrack): Promise<SpanDecoder> {
    const config = await track.getDecoderConfig();
    if (!config) throw new Error('the file does not say how its picture is decoded');
    return new SpanDecoder(track, config);
  }

  /** The pictures of a span in the order in which they show. Whoever takes one closes it. */
  async *pictures(span: Span): AsyncGenerator<DecodedSpan, void, undefined> {
    let fed = false;
    const feeding = this.feed(span)
      .then(() => {
        fed = true;
        this.bell.ring();
      })
      .catch((error: unknown) => this.fail(error));
    for (;;) {
      const picture = this.ready.shift();
      if (picture) {
        this.bell.ring();
        yield { picture, ...this.toTimestamp(picture) };
      } else if (this.failure !== null) {
        throw this.failure;
      } else if (fed) {
        break;
      } else {
        await this.bell.rung();
      }
    }
    await feeding;
  }

  close(): void {
    for (const picture of this.ready) picture.close();
    this.ready.length = 0;
    if (this.decoder.state !== 'closed') this.decoder.close();
  }

  private async feed({ start, pictures }: Span): Promise<void> {
    const first = await this.packets.getKeyPacket(start, { verifyKeyPackets: true });
    if (!first) return;
    let left = pictures;
    for await (const packet of this.packets.packets(first)) {
      while (this.decoder.decodeQueueSize + this.ready.length >= MAX_AHEAD && this.failure === null) {
        await this.bell.rung();
      }
      if (this.failure !== null) return;
      const { timestamp, duration, microsecondTimestamp } = packet;
      this.stamps.set(microsecondTimestamp, { timestamp, duration });
      this.decoder.decode(packet.toEncodedVideoChunk());
      left -= 1;
      if (left === 0) break;
    }
    await this.decoder.flush();
  }

  /** A frame's own stamp counts whole microseconds: the file's is the exact one. */
  private toTimestamp({ timestamp, duration }: VideoFrame): { timestamp: number; duration: number } {
    const exact = this.stamps.get(timestamp);
    this.stamps.delete(timestamp);
    return exact ?? { timestamp: timestamp / 1e6, duration: (duration ?? 0) / 1e6 };
  }

  private fail(error: unknown): void {
    this.failure ??= error;
    this.bell.ring();
  }
}
