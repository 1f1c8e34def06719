import {
  AudioSampleSink,
  type AudioSample,
  type Input,
  type InputAudioTrack,
  type InputVideoTrack,
  type VideoSample,
  VideoSampleSink,
} from 'mediabunny';
import type { Source } from '@core/master/source';
import { rateValue, toSeconds } from '@core/time/frame-rate';
import { TroubleError } from '@core/trouble/trouble';

/** A stamp this much of a frame after a frame's start still shows in it: containers that count milliseconds round. */
const STAMP_TOLERANCE = 0.4;

/** Reads frames and sound of a film by whole frame numbers, wherever its bytes lie. The owner closes it. */
export class FilmReader {
  protected constructor(
    readonly source: Source,
    protected readonly input: Input,
    protected readonly video: InputVideoTrack,
    readonly audio: InputAudioTrack | null,
    readonly startSeconds: number,
  ) {}

  /** @param input of the file that the source's facts are of. @throws TroubleError `no-video` */
  static async of(source: Source, input: Input): Promise<FilmReader> {
    return new FilmReader(source, input, ...(await openTracks(source, input)), source.startSeconds);
  }

  /** Time stamp in the file at which a frame starts, in seconds. */
  protected toTimestamp(frame: number): number {
    return this.startSeconds + toSeconds(frame, this.source.rate);
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
      Math.max(this.toTimestamp(from) - half, this.startSeconds),
      this.toTimestamp(to) + half,
    );
    let current: VideoSample | null = null;
    let next = from;
    try {
      for await (const sample of samples) {
        const shownFrom = this.toNumber(sample.timestamp);
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

  /** Reads one frame, or null past the last; the caller closes the sample. */
  async frame(frame: number): Promise<VideoSample | null> {
    const tolerance = STAMP_TOLERANCE / rateValue(this.source.rate);
    return new VideoSampleSink(this.video).getSample(this.toTimestamp(frame) + tolerance);
  }

  /** The first frame number that shows a picture with this stamp. */
  toNumber(stamp: number): number {
    return Math.ceil((stamp - this.startSeconds) * rateValue(this.source.rate) - STAMP_TOLERANCE);
  }

  /** Decoded sound from frame `from` to `to`, in the file's own stamps minus the video's start; null without any. */
  sound(from: number, to: number): AsyncGenerator<AudioSample, void, unknown> | null {
    if (!this.audio) return null;
    return new AudioSampleSink(this.audio).samples(this.toTimestamp(from), this.toTimestamp(to));
  }

  /** A sound sample's place on the master's own clock, in seconds from frame 0. */
  soundSeconds(sample: AudioSample): number {
    return sample.timestamp - this.startSeconds;
  }

  close(): void {
    this.input.dispose();
  }
}

/** The picture of a file, and the sound of it that a source takes. @throws TroubleError `no-video` */
export async function openTracks(
  source: Source,
  input: Input,
): Promise<[video: InputVideoTrack, audio: InputAudioTrack | null]> {
  const video = await input.getPrimaryVideoTrack();
  if (!video) throw new TroubleError('no-video', { file: source.fileName });
  const tracks = await input.getAudioTracks();
  return [video, source.soundTrack === null ? null : (tracks[source.soundTrack] ?? null)];
}
