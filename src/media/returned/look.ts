import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import {
  AudioSampleSink,
  EncodedPacketSink,
  type InputAudioTrack,
  type InputTrack,
  type InputVideoTrack,
  VideoSampleSink,
} from 'mediabunny';
import type { FilmFacts } from '@core/proof/returned';
import { THUMB, toThumb } from '@core/proof/thumb';
import { rateValue } from '@core/time/frame-rate';
import { TroubleError } from '@core/trouble/trouble';
import { samplePlanes } from '@render/master-sound';
import { openMedia } from '@render/open-media';
import { probeFile } from '../read/probe';
import { hashOfFile } from '../store/file-hash';
import { readLuma, turnUpright } from '../trial/luma';
import { throwIfStopped } from '../worker/serve-task';

/** Loudness is taken so often, a second. */
export const LEVELS = 20;

/** Frames made as small as can be, and when they come. */
export interface Thumbs {
  thumbs: Uint8Array;
  times: readonly number[];
}

/** A film that is open to be looked at. Whoever opens it closes it. */
export class OpenFilm {
  private constructor(
    readonly facts: FilmFacts,
    private readonly video: InputVideoTrack,
    private readonly audio: InputAudioTrack | null,
    readonly close: () => void,
  ) {}

  /** @param told gets bytes of the file that were read. @throws TroubleError where it is no film that can be decoded. */
  static async open(file: File, told: (done: number) => void, signal: AbortSignal): Promise<OpenFilm> {
    const known = await probeFile(file).catch((error: unknown) => {
      // A sound that cannot be decoded here is no reason not to look at the picture.
      if (error instanceof TroubleError && error.trouble.code === 'sound-missing')
        return probeFile(file, null);
      throw error;
    });
    const hash = await hashOfFile(file, (done) => {
      throwIfStopped(signal);
      told(done);
    });
    const input = openMedia(file);
    const video = (await input.getPrimaryVideoTrack()) as InputVideoTrack;
    const audio = await input.getPrimaryAudioTrack();
    const facts: FilmFacts = {
      ...{ bytes: file.size, sha256: hash, ...known.picture, frames: known.frames },
      ...{ rate: rateValue(known.rate), codec: known.video.codec, bits: known.video.bits },
      pictureHash: await packetHash(video, signal),
      sound: audio && {
        hash: await packetHash(audio, signal),
        codec: (await audio.getCodec()) ?? String(await audio.getInternalCodecId()),
        sampleRate: await audio.getSampleRate(),
        channels: await audio.getNumberOfChannels(),
      },
    };
    return new OpenFilm(facts, video, audio, () => input.dispose());
  }

  /** Every frame as a thumb, upright, one after another, and when each comes, in seconds from the first. */
  async thumbs(told: (done: number) => void, signal: AbortSignal): Promise<Thumbs> {
    const turns = (await this.video.getRotation()) / 90;
    const thumbs = new Uint8Array(this.facts.frames * THUMB);
    const times: number[] = [];
    for await (const sample of new VideoSampleSink(this.video).samples()) {
      const frame = sample.toVideoFrame();
      try {
        throwIfStopped(signal);
        const standing = turns === 0 ? frame : turnUpright(frame, this.facts, turns);
        if (times.length < this.facts.frames) {
          thumbs.set(toThumb(await readLuma(standing)), times.length * THUMB);
          times.push(sample.timestamp);
        }
        if (standing !== frame) standing.close();
      } finally {
        frame.close();
        sample.close();
      }
      told(times.length);
    }
    const [first = 0] = times;
    return { thumbs: thumbs.subarray(0, times.length * THUMB), times: times.map((time) => time - first) };
  }

  /** Some frames in their order, by when they come, upright, each null where there is none: the caller closes it. */
  async *frames(times: readonly number[]): AsyncGenerator<VideoFrame | null, void, undefined> {
    const first = await this.video.getFirstTimestamp();
    const turns = (await this.video.getRotation()) / 90;
    // A little later than it comes: stamps are rounded.
    const stamps = times.map((time) => first + time + 0.25 / this.facts.rate);
    for await (const sample of new VideoSampleSink(this.video).samplesAtTimestamps(stamps)) {
      const frame = sample?.toVideoFrame() ?? null;
      sample?.close();
      if (turns === 0 || frame === null) yield frame;
      else {
        const standing = turnUpright(frame, this.facts, turns);
        frame.close();
        yield standing;
      }
    }
  }

  /** How loud it is, {@link LEVELS} times a second: root mean square of all channels; null for no sound to decode. */
  async levels(signal: AbortSignal): Promise<Float32Array | null> {
    const { audio } = this;
    if (!audio || !(await audio.canDecode())) return null;
    const sums: number[] = [];
    const counts: number[] = [];
    const first = await this.video.getFirstTimestamp();
    for await (const sample of new AudioSampleSink(audio).samples()) {
      try {
        throwIfStopped(signal);
        for (const plane of samplePlanes(sample, 0, sample.numberOfFrames)) {
          for (let n = 0; n < plane.length; n++) {
            const at = Math.floor((sample.timestamp - first + n / sample.sampleRate) * LEVELS);
            if (at < 0) continue;
            sums[at] = (sums[at] ?? 0) + (plane[n] as number) ** 2;
            counts[at] = (counts[at] ?? 0) + 1;
          }
        }
      } finally {
        sample.close();
      }
    }
    return Float32Array.from({ length: sums.length }, (_, n) => Math.sqrt((sums[n] ?? 0) / (counts[n] || 1)));
  }
}

/** SHA-256 over everything that a track has coded, whatever file it is in. */
async function packetHash(track: InputTrack, signal: AbortSignal): Promise<string> {
  const hash = sha256.create();
  for await (const { data } of new EncodedPacketSink(track).packets()) {
    throwIfStopped(signal);
    hash.update(data);
  }
  return bytesToHex(hash.digest());
}
