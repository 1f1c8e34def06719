import {
  AudioSampleSink,
  EncodedPacketSink,
  type AudioSample,
  type Input,
  type InputAudioTrack,
  type InputVideoTrack,
  type VideoSample,
  VideoSampleSink,
} from 'mediabunny';
import type { Source } from '@core/master/source';
import { passNames } from '@core/pass/pass';
import type { CodedPicture } from '@core/pass/spans';
import { rateValue, secondsOf } from '@core/time/frame-rate';
import { TroubleError } from '@core/trouble/trouble';
import { openInput } from './probe';
import { SpanDecoder } from './span-decoder';
import { storedFile } from '../store/storage';

/** A stamp this much of a frame after a frame's start still shows in it: containers that count milliseconds round. */
const STAMP_TOLERANCE = 0.4;

/** Reads frames and sound of a stored master, or of its proxy, by whole frame numbers. The owner closes it. */
export class MasterReader {
  private constructor(
    readonly source: Source,
    private readonly input: Input,
    private readonly video: InputVideoTrack,
    readonly audio: InputAudioTrack | null,
    readonly startSeconds: number,
  ) {}

  /** @throws TroubleError `master-gone` when the browser no longer has the bytes. */
  static async open(source: Source): Promise<MasterReader> {
    const file = await storedFile('masters', source.fingerprint);
    if (!file) throw new TroubleError('master-gone', { file: source.fileName });
    const input = openInput(file);
    const video = await input.getPrimaryVideoTrack();
    if (!video) throw new TroubleError('no-video', { file: source.fileName });
    const tracks = await input.getAudioTracks();
    const audio = source.soundTrack === null ? null : (tracks[source.soundTrack] ?? null);
    return new MasterReader(source, input, video, audio, source.startSeconds);
  }

  /** The master's proxy, or null while there is none. Its stamps count from the master's first frame. */
  static async openProxy(source: Source): Promise<MasterReader | null> {
    const file = await storedFile('passes', passNames(source.fingerprint).proxy);
    if (!file) return null;
    const input = openInput(file);
    const video = await input.getPrimaryVideoTrack();
    return video ? new MasterReader(source, input, video, null, 0) : null;
  }

  /** Time stamp in the file at which a frame starts, in seconds. */
  private stampOf(frame: number): number {
    return this.startSeconds + secondsOf(frame, this.source.rate);
  }

  /**
   * Frames `from` to `to` − 1 in order, each exactly once; a picture that lasts longer is given again. The sample
   * is closed when the next is asked for.
   */
  async *frames(
    from: number,
    to: number,
  ): AsyncGenerator<{ frame: number; sample: VideoSample }, void, undefined> {
    const half = 0.5 / rateValue(this.source.rate);
    const samples = new VideoSampleSink(this.video).samples(
      Math.max(this.stampOf(from) - half, this.startSeconds),
      this.stampOf(to) + half,
    );
    let current: VideoSample | null = null;
    let next = from;
    try {
      for await (const sample of samples) {
        const shownFrom = this.numberOf(sample.timestamp);
        try {
          while (current && next < Math.min(shownFrom, to)) yield { frame: next++, sample: current };
        } finally {
          current?.close();
          current = sample;
        }
        if (next >= to) return;
      }
      while (current && next < to) yield { frame: next++, sample: current };
    } finally {
      current?.close();
    }
  }

  /** Every coded picture of the file in decoding order, as its index tells of it. */
  async *codedPictures(): AsyncGenerator<CodedPicture & { bytes: number }, void, undefined> {
    const packets = new EncodedPacketSink(this.video).packets(undefined, undefined, { metadataOnly: true });
    for await (const { timestamp, type, byteLength } of packets) {
      yield { timestamp, key: type === 'key', bytes: byteLength };
    }
  }

  /** Decodes spans of the file. Whoever opens it closes it. */
  spanDecoder(): Promise<SpanDecoder> {
    return SpanDecoder.open(this.video);
  }

  /** Whether a picture is still on screen when the first frame begins. */
  shows({ timestamp, duration }: { timestamp: number; duration: number }): boolean {
    return timestamp >= this.startSeconds || timestamp + duration > this.startSeconds + 1e-6;
  }

  /** One frame, or null past the last; the caller closes the sample. */
  async frame(frame: number): Promise<VideoSample | null> {
    const tolerance = STAMP_TOLERANCE / rateValue(this.source.rate);
    return new VideoSampleSink(this.video).getSample(this.stampOf(frame) + tolerance);
  }

  /** The key frame at or before a frame: near it, and there at once; the caller closes the sample. */
  async nearFrame(frame: number): Promise<VideoSample | null> {
    const key = await new EncodedPacketSink(this.video).getKeyPacket(this.stampOf(frame), {
      metadataOnly: true,
    });
    return key ? new VideoSampleSink(this.video).getSample(key.timestamp) : null;
  }

  /** The first frame number that shows a picture with this stamp. */
  numberOf(stamp: number): number {
    return Math.ceil((stamp - this.startSeconds) * rateValue(this.source.rate) - STAMP_TOLERANCE);
  }

  /** Decoded sound from frame `from` to `to`, in the file's own stamps minus the video's start; null without any. */
  sound(from: number, to: number): AsyncGenerator<AudioSample, void, unknown> | null {
    if (!this.audio) return null;
    return new AudioSampleSink(this.audio).samples(this.stampOf(from), this.stampOf(to));
  }

  /** A sound sample's place on the master's own clock, in seconds from frame 0. */
  soundSeconds(sample: AudioSample): number {
    return sample.timestamp - this.startSeconds;
  }

  /** Decoded sound of each track besides the one that clips take; null for one that cannot be decoded. */
  async otherSounds(): Promise<(AsyncGenerator<AudioSample, void, unknown> | null)[]> {
    const others = (await this.input.getAudioTracks()).filter((track) => track.id !== this.audio?.id);
    return Promise.all(
      others.map(async (track) =>
        (await track.canDecode()) ? new AudioSampleSink(track).samples(this.startSeconds) : null,
      ),
    );
  }

  close(): void {
    this.input.dispose();
  }
}
