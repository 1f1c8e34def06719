import type { Grey } from '../pass/grey';
import type { PictureRect } from '../picture/size';
import { type CameraMove, estimateCameraMove, isMovedBack, STILL, composeMoves } from './camera';
import type { Sample, Sighting, SubjectLook } from './evidence';
import { type NeighbourPicture, listMovingParts } from './moving';

/** A frame made small: its grey levels, and its colours for what subjects look like. */
export interface SmallPicture {
  grey: Grey;
  /** Red, green, blue and nothing, a byte each. */
  pixels: Uint8ClampedArray;
}

/** A small picture of pixels: their luma by BT.709, which is near enough for any master here. */
export function smallPicture(pixels: Uint8ClampedArray, width: number, height: number): SmallPicture {
  const data = new Uint8Array(width * height);
  for (let i = 0, from = 0; i < data.length; i++, from += 4)
    data[i] =
      0.2126 * (pixels[from] as number) +
      0.7152 * (pixels[from + 1] as number) +
      0.0722 * (pixels[from + 2] as number);
  return { grey: { width, height, data }, pixels };
}

/** A sample while what moves in it is not known yet: that needs those after it. */
interface WaitingPicture {
  frame: number;
  small: SmallPicture;
  detected: Sighting[] | null;
  /** How the camera moved from the sample before. */
  move: CameraMove;
}

/** Movement is judged so many samples before and after: that of one sample may be too little to be seen. */
const BESIDE = 2;

/** Makes samples of the pictures of one shot, in the order of their frames: what was detected and what moves in each. */
export class Sampler {
  private readonly waiting: WaitingPicture[] = [];
  private begun = false;

  /**
   * Takes the next picture.
   * @param detected what detectors saw in it; null where they did not look.
   * @returns the samples that are complete now: those of some pictures before.
   */
  take(frame: number, small: SmallPicture, detected: readonly Omit<Sighting, 'look'>[] | null): Sample[] {
    const { waiting } = this;
    const last = waiting[waiting.length - 1];
    const move = last ? estimateCameraMove(last.small.grey, small.grey) : STILL;
    const seen = detected?.map((found) => ({ ...found, look: computeLook(small, found.box) })) ?? null;
    waiting.push({ frame, small, detected: seen, move });
    if (waiting.length <= 2 * BESIDE) return [];
    const complete = [...waiting.keys()].slice(this.begun ? BESIDE : 0, BESIDE + 1);
    const made = complete.map((i) => toSample(waiting, i));
    this.begun = true;
    waiting.shift();
    return made;
  }

  /** The samples of the last pictures, or of all where there were few. */
  end(): Sample[] {
    const from = this.begun ? BESIDE : 0;
    return this.waiting.slice(from).map((_, i) => toSample(this.waiting, from + i));
  }
}

/** A sample with what moves in it, judged by one before it and one after; at the ends by two on the one side. */
function toSample(samples: readonly WaitingPicture[], i: number): Sample {
  const { frame, small, detected } = samples[i] as WaitingPicture;
  const [least, most] = [0, samples.length - 1];
  const before = i - BESIDE >= least ? i - BESIDE : Math.min(most, i + 2 * BESIDE);
  const after = i + BESIDE <= most ? i + BESIDE : Math.max(least, i - 2 * BESIDE);
  const [first, second] = [findBeside(samples, i, before), findBeside(samples, i, after)];
  const moving = first && second ? seenMoving(small, first, second) : [];
  return { frame, detected: detected !== null, seen: [...(detected ?? []), ...moving] };
}

/** Another sample with the camera's move to it; null for the same. */
function findBeside(samples: readonly WaitingPicture[], from: number, to: number): NeighbourPicture | null {
  if (from === to) return null;
  const between = samples.slice(Math.min(from, to) + 1, Math.max(from, to) + 1);
  const move = between.reduce((sum, next) => composeMoves(sum, next.move), STILL);
  return {
    picture: (samples[to] as WaitingPicture).small.grey,
    move: to > from ? move : isMovedBack(move),
  };
}

/** Finds what moves in a picture, between others beside it. */
function seenMoving(now: SmallPicture, before: NeighbourPicture, after: NeighbourPicture): Sighting[] {
  return listMovingParts(now.grey, before, after).map(({ box, strength }) => ({
    ...{ kind: 'motion', confidence: strength, box, look: computeLook(now, box) },
  }));
}

/**
 * Computes the appearance of a box: mean luma and colour differences of its upper and its lower half
 * (BT.709).
 */
function computeLook({ grey: { width, height }, pixels }: SmallPicture, box: PictureRect): SubjectLook {
  const clip = (value: number, most: number) => Math.min(most, Math.max(0, Math.round(value)));
  const [left, right] = [clip(box.x * width, width - 1), clip((box.x + box.width) * width, width)];
  const edges = [0, 0.5, 1].map((share) => clip((box.y + box.height * share) * height, height));
  return [0, 1].flatMap((half) => {
    const sums = [0, 0, 0];
    let count = 0;
    for (let y = edges[half] as number; y < (edges[half + 1] as number); y++) {
      for (let x = left; x < right; x++) {
        const at = (y * width + x) * 4;
        for (let k = 0; k < 3; k++) sums[k] = (sums[k] as number) + (pixels[at + k] as number);
        count += 1;
      }
    }
    const [r, g, b] = sums.map((sum) => sum / Math.max(1, count)) as [number, number, number];
    const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    return [luma, 128 + (b - luma) / 1.8556, 128 + (r - luma) / 1.5748].map((level) =>
      Number(level.toFixed(1)),
    );
  });
}
