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
import type { Master } from '@core/job/master';
import { rateValue, secondsOf } from '@core/time/frame-rate';
import { TroubleError } from '@core/trouble/trouble';
import { openInput } from './probe';
import { storedFile } from './storage';

/** A stamp this much of a frame after a frame's start still shows in it: containers that count milliseconds round. */
const STAMP_TOLERANCE = 0.4;

/** Reads frames and sound of a stored master by whole frame numbers. One per task; the owner closes it. */
export class MasterReader {
  private constructor(
    readonly master: Master,
    private readonly input: Input,
    private readonly video: InputVideoTrack,
    readonly audio: InputAudioTrack | null,
  ) {}

  /** @throws TroubleError `master-gone` when the browser no longer has the bytes. */
  static async open(master: Master): Promise<MasterReader> {
    const file = await storedFile('masters', master.fingerprint);
    if (!file) throw new TroubleError('master-gone', { file: master.fileName });
    const input = openInput(file);
    const video = await input.getPrimaryVideoTrack();
    if (!video) throw new TroubleError('no-video', { file: master.fileName });
    return new MasterReader(master, input, video, await input.getPrimaryAudioTrack());
  }

  /** Time stamp in the file at which a frame starts, in seconds. */
  private stampOf(frame: number): number {
    return this.master.startSeconds + secondsOf(frame, this.master.rate);
  }

  /**
   * Frames `from` to `to` − 1 in order, each exactly once; a picture that lasts longer is given again. The sample
   * is closed when the next is asked for.
   */
  async *frames(
    from: number,
    to: number,
  ): AsyncGenerator<{ frame: number; sample: VideoSample }, void, undefined> {
    const half = 0.5 / rateValue(this.master.rate);
    const samples = new VideoSampleSink(this.video).samples(
      Math.max(this.stampOf(from) - half, this.master.startSeconds),
      this.stampOf(to) + half,
    );
    let current: VideoSample | null = null;
    let next = from;
    try {
      for await (const sample of samples) {
        const shownFrom = this.firstFrameOf(sample.timestamp);
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

  /** One frame, or null past the last; the caller closes the sample. */
  async frame(frame: number): Promise<VideoSample | null> {
    const tolerance = STAMP_TOLERANCE / rateValue(this.master.rate);
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
  private firstFrameOf(stamp: number): number {
    return Math.ceil((stamp - this.master.startSeconds) * rateValue(this.master.rate) - STAMP_TOLERANCE);
  }

  /** Decoded sound from frame `from` to `to`, in the file's own stamps minus the video's start; null without any. */
  sound(from: number, to: number): AsyncGenerator<AudioSample, void, unknown> | null {
    if (!this.audio) return null;
    return new AudioSampleSink(this.audio).samples(this.stampOf(from), this.stampOf(to));
  }

  /** A sound sample's place on the master's own clock, in seconds from frame 0. */
  soundSeconds(sample: AudioSample): number {
    return sample.timestamp - this.master.startSeconds;
  }

  close(): void {
    this.input.dispose();
  }
}
