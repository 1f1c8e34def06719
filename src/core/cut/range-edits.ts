import { clamp } from '../picture/size';
import { type Cut, type Range, rangeLength } from './cut';

/** In or out point of a range. */
export type Edge = 'in' | 'out';

const getRange = (cut: Cut, index: number): Range => {
  const range = cut[index];
  if (!range) throw new RangeError(`the cut has ${cut.length} ranges, none numbered ${index}`);
  return range;
};
const withRange = (cut: Cut, index: number, range: Range): Cut =>
  cut.map((kept, i) => (i === index ? range : kept));

/**
 * A cut with one end of a range moved; what follows closes up behind it. At least one frame stays.
 *
 * @param frame the first frame kept for `in`, the last frame kept for `out`, of the range's master.
 * @param masterFrames length of that master, in frames.
 * @throws RangeError for a range that is not there.
 */
export function trimRange(cut: Cut, index: number, edge: Edge, frame: number, masterFrames: number): Cut {
  const range = getRange(cut, index);
  return withRange(
    cut,
    index,
    edge === 'in'
      ? { ...range, in: clamp(frame, 0, range.out - 1) }
      : { ...range, out: clamp(frame + 1, range.in + 1, masterFrames) },
  );
}

/**
 * A cut with a range in two, the second beginning at `frame` of its master; the same cut at a range's first frame.
 * @throws RangeError for a range that is not there, or a frame outside it.
 */
export function split(cut: Cut, index: number, frame: number): Cut {
  const range = getRange(cut, index);
  if (frame < range.in || frame >= range.out) throw new RangeError(`frame ${frame} is not in range ${index}`);
  if (frame === range.in) return cut;
  return [...cut.slice(0, index), { ...range, out: frame }, { ...range, in: frame }, ...cut.slice(index + 1)];
}

/** A cut without a range; what follows closes up. The last range of all stays. */
export function removeRange(cut: Cut, index: number): Cut {
  getRange(cut, index);
  return cut.length === 1 ? cut : cut.filter((_, i) => i !== index);
}

/** A cut with a range put at another place. @param to its place in the new order, from 0. */
export function moveRange(cut: Cut, from: number, to: number): Cut {
  const range = getRange(cut, from);
  const rest = cut.filter((_, i) => i !== from);
  const index = clamp(to, 0, rest.length);
  return [...rest.slice(0, index), range, ...rest.slice(index)];
}

/**
 * A cut whose range shows earlier or later frames of its master, its length and its place kept.
 * @param by frames of the master; it stops at the master's ends.
 */
export function slipRange(cut: Cut, index: number, by: number, masterFrames: number): Cut {
  const range = getRange(cut, index);
  const start = clamp(range.in + by, 0, masterFrames - rangeLength(range));
  return withRange(cut, index, { ...range, in: start, out: start + rangeLength(range) });
}

/**
 * A cut whose ranges `index` and `index` + 1, of one master, meet elsewhere: what one loses the other gains, so the
 * length stays. Ranges of two masters stay as they are.
 *
 * @param by frames; over 0 moves the cut between them later.
 */
export function rollEdit(cut: Cut, index: number, by: number, masterFrames: number): Cut {
  const first = getRange(cut, index);
  const second = getRange(cut, index + 1);
  if (first.master !== second.master) return cut;
  const least = Math.max(1 - rangeLength(first), -second.in);
  const most = Math.min(rangeLength(second) - 1, masterFrames - first.out);
  const step = clamp(by, least, most);
  const shortened = withRange(cut, index, { ...first, out: first.out + step });
  return withRange(shortened, index + 1, { ...second, in: second.in + step });
}

/** A cut whose ranges that go on where the one before ends, on the same master, are joined. */
export function joinRanges(cut: Cut): Cut {
  const out: Range[] = [];
  for (const range of cut) {
    const last = out[out.length - 1];
    if (last?.master === range.master && last.out === range.in)
      out[out.length - 1] = { ...last, out: range.out };
    else out.push(range);
  }
  return out;
}

/**
 * Slices a cut between two frames of its own playing order, at one rate.
 * @param from first kept. @param to first not kept.
 */
export function slice(cut: Cut, from: number, to: number): Cut {
  let reached = 0;
  return cut.flatMap((range) => {
    const start = reached;
    reached += rangeLength(range);
    const first = Math.max(from, start);
    const last = Math.min(to, reached);
    return last > first ? [{ ...range, in: range.in + first - start, out: range.in + last - start }] : [];
  });
}
