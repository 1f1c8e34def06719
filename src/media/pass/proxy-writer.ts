import { EncodedPacket, EncodedVideoPacketSource, Mp4OutputFormat } from 'mediabunny';
import type { Source } from '@core/master/source';
import { passNames } from '@core/pass/pass';
import type { ProxyPacket } from './proxy-encoder';
import { StoredOutput } from '../store/stored-output';

/** Stores a master's proxy as its pictures come. Its stamps count from the master's first frame. */
export class ProxyWriter {
  private constructor(
    private readonly file: StoredOutput,
    private readonly video: EncodedVideoPacketSource,
    private readonly config: VideoDecoderConfig,
  ) {}

  /** @param config how its pictures are decoded. */
  static async open(source: Source, config: VideoDecoderConfig): Promise<ProxyWriter> {
    const video = new EncodedVideoPacketSource('avc');
    const file = await StoredOutput.open(
      'passes',
      passNames(source.fingerprint).proxy,
      new Mp4OutputFormat({ fastStart: false }),
    );
    file.output.addVideoTrack(video);
    await file.output.start();
    return new ProxyWriter(file, video, config);
  }

  /** Adds a picture; pictures in order. @param config of the encoder that made it: all must agree. */
  async add({ data, key, timestamp, duration }: ProxyPacket, config: VideoDecoderConfig): Promise<void> {
    if (config !== this.config && !sameConfig(config, this.config)) {
      throw new Error('the browser encoded parts of one proxy in different ways');
    }
    const packet = new EncodedPacket(data, key ? 'key' : 'delta', timestamp / 1e6, duration / 1e6);
    await this.video.add(packet, { decoderConfig: this.config });
  }

  async finish(): Promise<{ width: number; height: number; bytes: number }> {
    await this.file.finalize();
    await this.file.keep();
    const { codedWidth = 0, codedHeight = 0 } = this.config;
    return { width: codedWidth, height: codedHeight, bytes: this.file.bytes };
  }

  discard(): Promise<void> {
    return this.file.discard();
  }
}

function sameConfig(a: VideoDecoderConfig, b: VideoDecoderConfig): boolean {
  const bytes = ({ description }: VideoDecoderConfig) =>
    String(description ? new Uint8Array(description as ArrayBuffer) : '');
  return a.codec === b.codec && bytes(a) === bytes(b);
}
