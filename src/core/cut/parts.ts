import { type Cut, rangeLength } from './cut';
import { slice } from './range-edits';

/** A place in a cut where it may be divided, in frames of its playing order. */
export interface Division {
  frame: number;
  kind: 'shot' | 'pause';
}

/** How a cut is to be divided. All in frames of one rate. */
export interface PartsRequest {
  /** Longest part. */
  most: number;
  /** Frames that a part repeats of the one before. */
  overlap: number;
  divisions: readonly Division[];
}

/** How far from the even split a shot or a pause is taken, as a share of an even part. */
const REACH = 0.3;

/**
 * A cut in parts of at most `most` frames, as few as fit and about as long as each other, divided at a shot or a
 * pause where one is near the even split.
 *
 * @returns the cuts in order; one alone when it fits already.
 * @throws RangeError when the overlap leaves a part nothing new.
 */
export function splitCut(cut: Cut, { most, overlap, divisions }: PartsRequest): Cut[] {
  if (overlap < 0 || overlap * 2 >= most)
    throw new RangeError('the overlap must be shorter than half a part');
  const total = cut.reduce((sum, range) => sum + rangeLength(range), 0);
  if (total <= most) return [cut];
  // Every part but the first shows `overlap` frames again.
  const count = Math.ceil((total - overlap) / (most - overlap));
  const cuts: Cut[] = [];
  let start = 0;
  for (let n = 0; n < count; n++) {
    const left = count - n;
    const end = left === 1 ? total : findEnd(start, total, left, { most, overlap, divisions });
    cuts.push(slice(cut, start, end));
    start = end - overlap;
  }
  return cuts;
}

/** Where a part that begins at `start` ends, so that what is left still fits into the parts that are left. */
function findEnd(
  start: number,
  total: number,
  left: number,
  { most, overlap, divisions }: PartsRequest,
): number {
  const even = start + Math.round((total - start + overlap * (left - 1)) / left);
  const latest = Math.min(start + most, total);
  // The parts after it hold at most this much.
  const earliest = Math.max(start + overlap + 1, total - (most - overlap) * (left - 1));
  const reach = (even - start) * REACH;
  const near = divisions
    .filter(({ frame }) => frame >= earliest && frame <= latest && Math.abs(frame - even) <= reach)
    .sort((a, b) => computeCost(a, even, reach) - computeCost(b, even, reach))[0];
  return near ? near.frame : Math.min(latest, Math.max(earliest, even));
}

/** A shot is worth a little more than a pause. */
const computeCost = ({ frame, kind }: Division, even: number, reach: number): number =>
  Math.abs(frame - even) / reach + (kind === 'shot' ? 0 : 0.3);
