import { type CameraMove, cameraBetween, movedBack, STILL, thenMoved } from '@core/follow/camera';
import type { Beside } from '@core/follow/moving';
import { busyPart } from '@core/follow/busy';
import { DETECT_EVERY, type LookedSpan, type Sample, type Sighting, sampleStep } from '@core/follow/evidence';
import { tracksOf } from '@core/follow/tracks';
import { WHOLE } from '@core/framing/window';
import type { Source } from '@core/master/source';
import { rateValue } from '@core/time/frame-rate';
import { drawUpright } from '../play/draw-upright';
import { waitWhilePlaying } from '../play/playing-lock';
import { type Picture, pictureOf } from '../play/preview-picture';
import { MasterReader } from '../read/master-reader';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import { Detector } from './detector';
import { lookOf, seenMoving, type SmallPicture, SmallPictures } from './follow-eye';

/** Frames of a master that are to be looked at for following; each range is of one shot. */
export interface EvidenceRequest {
  /** As its file says it is: frames count at its own rate. */
  source: Source;
  ranges: { in: number; out: number }[];
}

/** How far it is, and each range as soon as it was looked at. */
export interface EvidenceProgress {
  /** Frames that were looked at. */
  done: number;
  span: LookedSpan | null;
}

/**
 * Looks for subjects in ranges of a master: by detectors and by movement, from its proxy while there is one.
 * @returns the number of frames that were looked at. @throws TroubleError `master-gone`, `cancelled`.
 */
export async function gatherEvidence(
  { source, ranges }: EvidenceRequest,
  context: TaskContext,
): Promise<number> {
  const reader = (await MasterReader.openProxy(source)) ?? (await MasterReader.open(source));
  try {
    const eye = new RangeEye(source, await Detector.open());
    let done = 0;
    for (const range of ranges) {
      const from = done;
      const report = (frames: number, span: LookedSpan | null) =>
        context.report({ done: from + frames, span } satisfies EvidenceProgress);
      const samples = await eye.look(reader, range, (frames) => report(frames, null), context.signal);
      done += range.out - range.in;
      const tracks = tracksOf(samples, rateValue(source.rate));
      report(range.out - range.in, { ...range, tracks, busy: busyPart(samples) });
    }
    return done;
  } finally {
    reader.close();
  }
}

/** A sample while what moves in it is not known yet: that needs the one after it. */
interface Waiting {
  frame: number;
  small: SmallPicture;
  detected: Sighting[] | null;
  /** How the camera moved from the sample before. */
  move: CameraMove;
}

/** Movement is judged so many samples before and after: that of one sample may be too little to be seen. */
const BESIDE = 2;

class RangeEye {
  private readonly small: SmallPictures;

  constructor(
    private readonly source: Source,
    private readonly detector: Detector,
  ) {
    this.small = new SmallPictures(source);
  }

  /** Samples of a range. @param onFrame told how many of its frames were seen. */
  async look(
    reader: MasterReader,
    range: { in: number; out: number },
    onFrame: (frames: number) => void,
    signal: AbortSignal,
  ): Promise<Sample[]> {
    const step = sampleStep(rateValue(this.source.rate));
    const samples: Waiting[] = [];
    const made: Sample[] = [];
    let count = 0;
    for await (const { frame, sample } of reader.frames(range.in, range.out)) {
      if ((frame - range.in) % step !== 0) continue;
      throwIfStopped(signal);
      const picture = await pictureOf(sample.clone(), this.source, false);
      try {
        const small = this.small.take(picture);
        const detected = count % DETECT_EVERY === 0 ? await this.detect(picture, small) : null;
        const last = samples[samples.length - 1];
        const move = last ? cameraBetween(last.small.grey, small.grey) : STILL;
        samples.push({ frame, small, detected, move });
      } finally {
        picture.close();
      }
      count += 1;
      if (samples.length > 2 * BESIDE) {
        if (made.length === 0) for (let i = 0; i < BESIDE; i++) made.push(told(samples, i));
        made.push(told(samples, BESIDE));
        samples.shift();
      }
      onFrame(frame - range.in);
      await waitWhilePlaying();
    }
    // The last ones, or all where there are few.
    const from = made.length === 0 ? 0 : BESIDE;
    return [...made, ...samples.slice(from).map((_, i) => told(samples, from + i))];
  }

  private async detect(picture: Picture, small: SmallPicture): Promise<Sighting[]> {
    const { width, height } = this.source.picture;
    const found = await this.detector.detect(
      (ink, to) => drawUpright(ink, picture, this.source, WHOLE, WHOLE, to),
      width / height,
    );
    return found.map((next) => ({ ...next, look: lookOf(small, next.box) }));
  }
}

/** A sample with what moves in it, judged by those beside it; at the ends the one beside it stands for both. */
function told(samples: readonly Waiting[], i: number): Sample {
  const { frame, small, detected } = samples[i] as Waiting;
  const before = besideAt(samples, i, Math.max(0, i - BESIDE));
  const after = besideAt(samples, i, Math.min(samples.length - 1, i + BESIDE));
  const [first, second] = [before ?? after, after ?? before];
  const moving = first && second ? seenMoving(small, first, second) : [];
  return { frame, detected: detected !== null, seen: [...(detected ?? []), ...moving] };
}

/** Another sample with the camera's move to it; null for the same. */
function besideAt(samples: readonly Waiting[], from: number, to: number): Beside | null {
  if (from === to) return null;
  const between = samples.slice(Math.min(from, to) + 1, Math.max(from, to) + 1);
  const move = between.reduce((sum, next) => thenMoved(sum, next.move), STILL);
  return {
    picture: (samples[to] as Waiting).small.grey,
    move: to > from ? move : movedBack(move),
  };
}
