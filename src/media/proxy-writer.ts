import {
  Mp4OutputFormat,
  Output,
  Quality,
  StreamTarget,
  type StreamTargetChunk,
  VideoSample,
  VideoSampleSource,
} from 'mediabunny';
import type { Source } from '@core/job/source';
import { passNames } from '@core/pass/pass';
import { rateValue } from '@core/time/frame-rate';
import type { Kernel } from '@kernel/kernel';
import type { PlanarPicture } from '@kernel/planes';
import { openWriter, type StoredWriter } from './storage';

/** A key frame every so many frames: a step back decodes at most this many. */
const KEY_FRAME_EVERY = 12;
/** Bits a sample: a proxy is looked at, never exported. */
const BITS_A_SAMPLE = 0.07;
const CHUNK_BYTES = 1 << 20;

/** Writes a master's proxy while the master is looked at. Its stamps count from the master's first frame. */
export class ProxyWriter {
  private bytes = 0;
  private count = 0;

  private constructor(
    private readonly output: Output,
    private readonly video: VideoSampleSource,
    private readonly writer: StoredWriter,
    private readonly size: { width: number; height: number },
  ) {}

  /** @param size of the proxy's pictures, even. */
  static async open(source: Source, size: { width: number; height: number }): Promise<ProxyWriter> {
    const writer = await openWriter('passes', passNames(source.fingerprint).proxy);
    const rate = rateValue(source.rate);
    const video = new VideoSampleSource({
      codec: 'avc',
      quality: new Quality({
        bitrate: Math.round(Math.max(300_000, size.width * size.height * rate * BITS_A_SAMPLE)),
        bitrateMode: 'variable',
      }),
      latencyMode: 'realtime',
      keyFrameInterval: KEY_FRAME_EVERY / rate,
    });
    let proxy: ProxyWriter | null = null;
    const target = new StreamTarget(
      new WritableStream<StreamTargetChunk>({
        write({ data, position }) {
          writer.write(data, position);
          if (proxy) proxy.bytes = Math.max(proxy.bytes, position + data.byteLength);
        },
      }),
      { chunked: true, chunkSize: CHUNK_BYTES },
    );
    const output = new Output({ format: new Mp4OutputFormat({ fastStart: false }), target });
    output.addVideoTrack(video);
    proxy = new ProxyWriter(output, video, writer, size);
    await output.start();
    return proxy;
  }

  /** Adds a picture. @param seconds from the master's first frame. */
  async add(frame: VideoFrame, seconds: number, duration: number): Promise<void> {
    const sample = new VideoSample(frame.clone(), { timestamp: Math.max(0, seconds), duration });
    try {
      await this.video.add(sample, { keyFrame: this.count % KEY_FRAME_EVERY === 0 });
      this.count += 1;
    } finally {
      sample.close();
    }
  }

  async finish(): Promise<{ width: number; height: number; bytes: number }> {
    await this.output.finalize();
    await this.writer.finish();
    return { ...this.size, bytes: this.bytes };
  }

  async discard(): Promise<void> {
    await this.output.cancel().catch(() => undefined);
    await this.writer.discard().catch(() => undefined);
  }
}

/** A small picture of the kernel as a frame to encode and to draw, in the source's own colour. The caller closes it. */
export function frameOf(
  kernel: Kernel,
  picture: PlanarPicture,
  { colour }: Source,
  seconds: number,
): VideoFrame {
  const { width, height, planes } = picture;
  const first = Math.min(...planes.map((plane) => plane.offset));
  const end = Math.max(...planes.map((plane) => plane.offset + plane.stride * plane.height));
  return new VideoFrame(kernel.bytes(first, end - first), {
    format: 'I420',
    codedWidth: width,
    codedHeight: height,
    timestamp: Math.round(seconds * 1e6),
    layout: planes.map(({ offset, stride }) => ({ offset: offset - first, stride })),
    colorSpace: {
      primaries: (colour.primaries ?? 'bt709') as VideoColorPrimaries,
      transfer: (colour.transfer ?? 'bt709') as VideoTransferCharacteristics,
      matrix: (colour.matrix ?? 'bt709') as VideoMatrixCoefficients,
      fullRange: colour.fullRange ?? false,
    },
  });
}
