import type { Grey } from '../pass/grey';
import type { PictureRect } from '../picture/size';
import { type CameraMove, warpByCameraMove } from './camera';

/** Something that moves otherwise than the camera. */
export interface MovingPart {
  /** 0…1 of the picture. */
  box: PictureRect;
  /** How clearly it moves, 0…1. */
  strength: number;
}

/** A sample moves when it differs this much from the background, in grey levels and in multiples of what is usual. */
const MIN_DIFFERENCE = 7;
const OVER_USUAL = 4;
/** Gaps of so many samples are closed. */
const CLOSES = 3;
/** Parts smaller than this share of the picture are noise; so many at most are told. */
const MIN_AREA = 0.0006;
const MAX_PARTS = 12;
/** Difference at which a part moves as clearly as can be, in grey levels. */
const CLEAR = 40;

/** A picture beside another, and how the camera moved from that other to it. */
export interface NeighbourPicture {
  picture: Grey;
  move: CameraMove;
}

/**
 * Parts of a picture that move otherwise than the camera: what differs both from a picture before and from one after,
 * with the camera's move taken off, so that the places which a subject has left or will come to do not count.
 */
export function listMovingParts(now: Grey, before: NeighbourPicture, after: NeighbourPicture): MovingPart[] {
  const { width, height } = now;
  const both = lesser(difference(now, before), difference(now, after));
  const smooth = averageNeighbours(both, width, height);
  const threshold = Math.max(MIN_DIFFERENCE, OVER_USUAL * computeUsual(smooth));
  const moves = new Uint8Array(smooth.length);
  for (let i = 0; i < moves.length; i++) moves[i] = (smooth[i] as number) > threshold ? 1 : 0;
  const parts = listConnectedParts(closeMask(moves, width, height), smooth, width, height);
  return parts
    .filter(({ area }) => area >= MIN_AREA * width * height)
    .sort((a, b) => b.area * b.mean - a.area * a.mean)
    .slice(0, MAX_PARTS)
    .map(({ left, top, right, bottom, mean }) => ({
      box: {
        x: left / width,
        y: top / height,
        width: (right - left + 1) / width,
        height: (bottom - top + 1) / height,
      },
      strength: Math.min(1, mean / CLEAR),
    }));
}

/** The difference of a picture from another, as seen from the same place; 0 where the other tells nothing. */
function difference(now: Grey, { picture, move }: NeighbourPicture): Float32Array {
  const view = warpByCameraMove(picture, move);
  for (let i = 0; i < view.length; i++) {
    const value = Math.abs((view[i] as number) - (now.data[i] as number));
    view[i] = Number.isNaN(value) ? 0 : value;
  }
  return view;
}

function lesser(a: Float32Array, b: Float32Array): Float32Array {
  for (let i = 0; i < a.length; i++) if ((b[i] as number) < (a[i] as number)) a[i] = b[i] as number;
  return a;
}

/** The mean of three by three samples; past an edge its sample counts again. */
function averageNeighbours(values: Float32Array, width: number, height: number): Float32Array {
  const across = new Float32Array(values.length);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    for (let x = 0; x < width; x++) {
      const left = values[row + (x > 0 ? x - 1 : x)] as number;
      const right = values[row + (x < width - 1 ? x + 1 : x)] as number;
      across[row + x] = left + (values[row + x] as number) + right;
    }
  }
  const made = new Float32Array(values.length);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    const above = (y > 0 ? y - 1 : y) * width;
    const below = (y < height - 1 ? y + 1 : y) * width;
    for (let x = 0; x < width; x++)
      made[row + x] =
        ((across[above + x] as number) + (across[row + x] as number) + (across[below + x] as number)) / 9;
  }
  return made;
}

/** Every so manyth sample is enough for what is usual. */
const SAMPLED = 7;

/** The median difference. */
function computeUsual(values: Float32Array): number {
  const some = new Float32Array(Math.ceil(values.length / SAMPLED));
  for (let i = 0; i < some.length; i++) some[i] = values[i * SAMPLED] as number;
  return some.sort()[some.length >> 1] ?? 0;
}

/** A mask with small gaps closed: grown by squares, and shrunk again. */
function closeMask(mask: Uint8Array, width: number, height: number): Uint8Array {
  const inverse = (of: Uint8Array) => of.map((value) => 1 - value);
  return inverse(grown(inverse(grown(mask, width, height)), width, height));
}

/** A mask grown by some samples to all sides. */
function grown(mask: Uint8Array, width: number, height: number): Uint8Array {
  const across = new Uint8Array(mask.length);
  for (let y = 0; y < height; y++) spreadLine(mask, across, y * width, 1, width);
  const made = new Uint8Array(mask.length);
  for (let x = 0; x < width; x++) spreadLine(across, made, x, width, height);
  return made;
}

function spreadLine(from: Uint8Array, to: Uint8Array, start: number, step: number, count: number): void {
  let last = -Infinity;
  for (let i = 0; i < count + CLOSES; i++) {
    if (i < count && from[start + i * step] === 1) last = i;
    const at = i - CLOSES;
    if (at >= 0 && last >= at - CLOSES) to[start + at * step] = 1;
  }
}

interface Part {
  left: number;
  top: number;
  right: number;
  bottom: number;
  area: number;
  /** Mean difference, in grey levels. */
  mean: number;
}

/** The connected parts of a mask. */
function listConnectedParts(mask: Uint8Array, values: Float32Array, width: number, height: number): Part[] {
  const left = mask.slice();
  const parts: Part[] = [];
  const stack: number[] = [];
  for (let start = 0; start < left.length; start++) {
    if (left[start] === 0) continue;
    const part: Part = { left: width, top: height, right: 0, bottom: 0, area: 0, mean: 0 };
    left[start] = 0;
    stack.push(start);
    while (stack.length > 0) {
      const at = stack.pop() as number;
      const [x, y] = [at % width, Math.floor(at / width)];
      part.left = Math.min(part.left, x);
      part.right = Math.max(part.right, x);
      part.top = Math.min(part.top, y);
      part.bottom = Math.max(part.bottom, y);
      part.area += 1;
      part.mean += values[at] as number;
      for (const next of [x > 0 ? at - 1 : -1, x < width - 1 ? at + 1 : -1, at - width, at + width]) {
        if (next < 0 || next >= left.length || left[next] === 0) continue;
        left[next] = 0;
        stack.push(next);
      }
    }
    parts.push({ ...part, mean: part.mean / part.area });
  }
  return parts;
}
