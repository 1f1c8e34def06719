import type { Packet } from '@render/mux';
import type { StreamConfig } from '../export/packet-log';
import { waitWhilePlaying } from '../play/playing-lock';
import { throwIfStopped } from '../worker/serve-task';

/** An encoded picture stream, whole. */
export interface Stream {
  config: VideoDecoderConfig;
  packets: Packet[];
}

/** Frames that wait to be taken at most, and packets that wait in the decoder. */
const MAX_WAITING = 4;

/** Gathers what an encoder gives. */
export class StreamTaker {
  private config: VideoDecoderConfig | null = null;
  private readonly packets: Packet[] = [];

  readonly take = (packet: Packet, config: StreamConfig | undefined): void => {
    if (config && 'codedWidth' in config) this.config ??= config;
    this.packets.push(packet);
  };

  /** @throws Error where the encoder said nothing of its stream. */
  stream(): Stream {
    if (!this.config) throw new Error('the encoder gave no configuration');
    return { config: this.config, packets: this.packets };
  }

  get bytes(): number {
    return this.packets.reduce((sum, { data }) => sum + data.byteLength, 0);
  }
}

/**
 * Decodes a stream. @param take gets each frame in order with its number; it is closed when that resolves.
 * @throws what the decoder throws, and TroubleError `cancelled`.
 */
export async function decodeStream(
  { config, packets }: Stream,
  take: (frame: VideoFrame, number: number) => Promise<void>,
  signal: AbortSignal,
): Promise<void> {
  let failure: unknown = null;
  let wake: () => void = () => undefined;
  let number = 0;
  let waiting = 0;
  let last: Promise<void> = Promise.resolve();
  const fail = (error: unknown): void => {
    failure ??= error;
    wake();
  };
  const decoder = new VideoDecoder({
    output(frame) {
      const own = number++;
      waiting += 1;
      last = last
        .then(() => (failure === null ? take(frame, own) : undefined))
        .catch(fail)
        .finally(() => {
          frame.close();
          waiting -= 1;
          wake();
        });
    },
    error: fail,
  });
  decoder.addEventListener('dequeue', () => wake());
  try {
    decoder.configure(config);
    for (const { data, key, timestamp, duration } of packets) {
      while (failure === null && (waiting >= MAX_WAITING || decoder.decodeQueueSize >= MAX_WAITING)) {
        await new Promise<void>((resolve) => (wake = resolve));
      }
      if (failure !== null) throw failure;
      await waitWhilePlaying(signal);
      throwIfStopped(signal);
      const times = { timestamp: Math.round(timestamp * 1e6), duration: Math.round(duration * 1e6) };
      decoder.decode(new EncodedVideoChunk({ type: key ? 'key' : 'delta', data, ...times }));
    }
    await decoder.flush();
    await last;
    if (failure !== null) throw failure;
  } finally {
    await last.catch(() => undefined);
    if (decoder.state !== 'closed') decoder.close();
  }
}
