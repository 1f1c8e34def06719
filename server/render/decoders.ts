import {
  AudioSample,
  CustomAudioDecoder,
  CustomVideoDecoder,
  EncodedAudioPacketSource,
  type EncodedPacket,
  EncodedVideoPacketSource,
  registerDecoder,
  VideoSample,
  VideoSampleColorSpace,
  VideoSampleResource,
  type VideoSamplePixelFormat,
} from 'mediabunny';
import { type PixelLayout, pictureShape } from '../../src/kernel/planes';
import { Buffers } from './buffers';
import { PipeDecoder, type InfoPattern, type DecodedPieceInfo } from './pipe-decoder';

/** Layouts of the kernel, as ffmpeg names them. */
const PIXELS: Partial<Record<string, PixelLayout>> = {
  yuv420p: 'I420',
  yuv422p: 'I422',
  yuv444p: 'I444',
  yuv420p10le: 'I420P10',
  yuv422p10le: 'I422P10',
  yuv444p10le: 'I444P10',
  yuv420p12le: 'I420P12',
  yuv422p12le: 'I422P12',
  yuv444p12le: 'I444P12',
};

/** ffmpeg's word for colour that says nothing, and the one that the WebCodecs specification has otherwise. */
const toWord = (word: string | undefined): string | null =>
  word === undefined || word === 'unknown' || word === 'reserved'
    ? null
    : word.replace('bt2020nc', 'bt2020-ncl').replace('smpte2084', 'pq').replace('arib-std-b67', 'hlg');

interface ToldFrame extends DecodedPieceInfo {
  layout: PixelLayout;
  width: number;
  height: number;
  /** Told on the line after. */
  colour: object | null;
}

/** Pattern of `showinfo`'s line for each frame. */
const FRAMES: InfoPattern<ToldFrame> = {
  args: ['-vf', 'showinfo=checksum=0', '-fps_mode', 'passthrough', '-f', 'rawvideo'],
  isTold: ({ colour }) => colour !== null,
  read(line, last) {
    const frame = /n: *\d+ pts: *-?\d+ pts_time:(-?[\d.]+).* fmt:(\w+) .*s:(\d+)x(\d+)/.exec(line);
    if (frame) {
      const [, time, pixels = '', across, down] = frame;
      // Full range has names of its own for the same planes.
      const layout = PIXELS[pixels.replace('yuvj', 'yuv')];
      if (!layout) throw new Error(`frames of ${pixels} cannot be read`);
      const [width, height] = [Number(across), Number(down)];
      const bytes = pictureShape(layout, width, height, 1).size;
      return { time: Number(time), bytes, layout, width, height, colour: null };
    }
    const colour = /color_range:(\w+) color_space:([\w-]+) color_primaries:([\w-]+) color_trc:([\w-]+)/.exec(
      line,
    );
    if (last && colour) {
      const [, range, matrix, primaries, transfer] = colour;
      const fullRange = range === 'pc' ? true : range === 'tv' ? false : null;
      last.colour = {
        ...{ matrix: toWord(matrix), primaries: toWord(primaries), transfer: toWord(transfer), fullRange },
      };
    }
    return null;
  },
};

/** A decoded frame whose bytes are used again once it is closed. */
class RawFrame extends VideoSampleResource {
  constructor(
    private readonly facts: ToldFrame,
    private readonly data: Uint8Array<ArrayBuffer>,
    private readonly buffers: Buffers,
  ) {
    super();
  }

  getFormat = (): VideoSamplePixelFormat => this.facts.layout as 'I420';
  getCodedWidth = (): number => this.facts.width;
  getCodedHeight = (): number => this.facts.height;
  getSquarePixelWidth = (): number => this.facts.width;
  getSquarePixelHeight = (): number => this.facts.height;
  getColorSpace = (): VideoSampleColorSpace =>
    new VideoSampleColorSpace(this.facts.colour as VideoColorSpaceInit);
  close = (): void => this.buffers.give(this.data);
  toRgbSample = (): never => {
    throw new Error('nothing here works on red, green and blue');
  };

  getDataPlanes() {
    const { layout, width, height } = this.facts;
    return pictureShape(layout, width, height, 1).planes.map(({ offset, stride, height: rows }) => ({
      data: this.data.subarray(offset, offset + stride * rows),
      stride,
    }));
  }
}

/** Decodes pictures. */
class FilmDecoder extends CustomVideoDecoder {
  private pipe: PipeDecoder<ToldFrame> | null = null;
  private readonly buffers = new Buffers();

  static override supports = (codec: string): boolean => ['avc', 'hevc', 'vp8', 'vp9', 'av1'].includes(codec);

  async init(): Promise<void> {
    this.pipe = new PipeDecoder(
      (output) => {
        const source = new EncodedVideoPacketSource(this.codec);
        output.addVideoTrack(source);
        return source;
      },
      this.config,
      FRAMES,
      (facts, data, timestamp) =>
        this.onSample(new VideoSample(new RawFrame(facts, data, this.buffers), { timestamp })),
      this.buffers,
    );
    await this.pipe.open();
  }

  async decode(packet: EncodedPacket): Promise<void> {
    await this.pipe?.decode(packet);
  }

  async flush(): Promise<void> {
    await this.pipe?.flush();
  }

  close(): void {
    this.pipe?.close();
  }
}

interface ToldSound extends DecodedPieceInfo {
  channels: number;
  sampleRate: number;
}

/** Pattern of `ashowinfo`'s line for each piece of sound. */
const SOUNDS: InfoPattern<ToldSound> = {
  args: ['-af', 'ashowinfo', '-c:a', 'pcm_f32le', '-f', 'f32le'],
  isTold: () => true,
  read(line) {
    const found = /pts_time:(-?[\d.]+).* channels:(\d+) .*rate:(\d+) nb_samples:(\d+)/.exec(line);
    if (!found) return null;
    const [time, channels, sampleRate, samples] = found.slice(1).map(Number) as [
      number,
      number,
      number,
      number,
    ];
    return { time, channels, sampleRate, bytes: samples * channels * 4 };
  },
};

/** Decodes sound. */
class SoundDecoder extends CustomAudioDecoder {
  private pipe: PipeDecoder<ToldSound> | null = null;

  static override supports = (codec: string): boolean =>
    !codec.startsWith('pcm') && codec !== 'ulaw' && codec !== 'alaw';

  async init(): Promise<void> {
    this.pipe = new PipeDecoder(
      (output) => {
        const source = new EncodedAudioPacketSource(this.codec);
        output.addAudioTrack(source);
        return source;
      },
      this.config,
      SOUNDS,
      ({ channels, sampleRate }, data, timestamp) =>
        this.onSample(
          new AudioSample({ data, format: 'f32', numberOfChannels: channels, sampleRate, timestamp }),
        ),
    );
    await this.pipe.open();
  }

  async decode(packet: EncodedPacket): Promise<void> {
    await this.pipe?.decode(packet);
  }

  async flush(): Promise<void> {
    await this.pipe?.flush();
  }

  close(): void {
    this.pipe?.close();
  }
}

let registered = false;

/** Has films decoded by ffmpeg in this process, where no browser does it. */
export function decodeWithFfmpeg(): void {
  if (registered) return;
  registered = true;
  registerDecoder(FilmDecoder as never);
  registerDecoder(SoundDecoder as never);
}
