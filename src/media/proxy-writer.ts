import { Quality, VideoSample, VideoSampleSource } from 'mediabunny';
import type { Source } from '@core/job/source';
import { passNames } from '@core/pass/pass';
import { rateValue } from '@core/time/frame-rate';
import type { Kernel } from '@kernel/kernel';
import type { PlanarPicture } from '@kernel/planes';
import { StoredMp4 } from './stored-mp4';

/** A key frame every so many frames: a step back decodes at most this many. */
const KEY_FRAME_EVERY = 12;
/** Bits a sample: a proxy is looked at, never exported. */
const BITS_A_SAMPLE = 0.07;

/** Writes a master's proxy while the master is looked at. Its stamps count from the master's first frame. */
export class ProxyWriter {
  private count = 0;

  private constructor(
    private readonly file: StoredMp4,
    private readonly video: VideoSampleSource,
    private readonly size: { width: number; height: number },
  ) {}

  /** @param size of the proxy's pictures, even. */
  static async open(source: Source, size: { width: number; height: number }): Promise<ProxyWriter> {
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
    const file = await StoredMp4.open('passes', passNames(source.fingerprint).proxy, false);
    file.output.addVideoTrack(video);
    await file.output.start();
    return new ProxyWriter(file, video, size);
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
    await this.file.finalize();
    await this.file.keep();
    return { ...this.size, bytes: this.file.bytes };
  }

  discard(): Promise<void> {
    return this.file.discard();
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
