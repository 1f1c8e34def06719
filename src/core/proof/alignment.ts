import { THUMB, type Turn, turnThumbs, TURNS } from './thumb';

/** A stretch of a film that came back, and where it lies in the film that was sent. */
interface Run {
  /** Its first frame, and the one after its last. */
  from: number;
  to: number;
  /** The frame that was sent of its first. */
  sent: number;
}

/** How a film that came back lies on the one that was sent. */
export interface Alignment {
  /** What brings it to lie as it was sent. */
  turn: Turn;
  runs: Run[];
  /** Mean difference of a thumb's samples, in codes of 8 bits. */
  difference: number;
}

/** Frames that may stand before the beginning, or after the end. */
const MARGIN = 8;
/** A frame that nothing was sent for differs by so much. */
const NOTHING = 48;
/** A jump must be worth so much of difference, summed over frames: still pictures make none. */
const JUMP = 40;
/** Frames by offsets that are held at most: ten minutes that lost half of themselves. */
const MOST_CELLS = 100e6;
/** Frames that are looked at to find how a film was turned. */
const SAMPLES = 24;

/**
 * Finds for every frame of a film that came back the frame that was sent, by the least difference of thumbs with as few
 * jumps as they allow (A. J. Viterbi, "Error bounds for convolutional codes and an asymptotically optimum decoding
 * algorithm", IEEE Transactions on Information Theory 13(2), 1967).
 * @param sent thumbs one after another. @param step frames that were sent to one that came back, by their rates.
 * @throws RangeError where either has no frame.
 */
export function alignFilms(sent: Uint8Array, got: Uint8Array, step: number): Alignment {
  if (sent.length < THUMB || got.length < THUMB) throw new RangeError('a film has at least one frame');
  const { count } = offsetsOf(sent.length / THUMB, got.length / THUMB, step);
  // What is so much longer or shorter is no copy of it.
  if (count * (got.length / THUMB) > MOST_CELLS)
    return {
      turn: TURNS[0] as Turn,
      runs: [{ from: 0, to: got.length / THUMB, sent: 0 }],
      difference: Infinity,
    };
  const turn = TURNS.map((turn) => ({ turn, cost: leastCost(sent, turnThumbs(got, turn), step) })).reduce(
    (a, b) => (b.cost < a.cost ? b : a),
  ).turn;
  return { turn, ...aligned(sent, turnThumbs(got, turn), step) };
}

/** Offsets that are tried: how far frames that were sent are ahead of those that came back. */
function offsetsOf(sent: number, got: number, step: number): { least: number; count: number } {
  const spare = sent - Math.round(got * step);
  const least = Math.min(0, spare) - MARGIN;
  return { least, count: Math.max(0, spare) + MARGIN - least + 1 };
}

/** Mean difference of two thumbs; for one that is not there, a large one. */
function differenceOf(a: Uint8Array, frameA: number, b: Uint8Array, frameB: number): number {
  const [from, to] = [frameA * THUMB, frameB * THUMB];
  if (from < 0 || from >= a.length) return NOTHING;
  let sum = 0;
  for (let n = 0; n < THUMB; n++) sum += Math.abs((a[from + n] as number) - (b[to + n] as number));
  return sum / THUMB;
}

/** What some frames cost at least, each wherever it fits best. */
function leastCost(sent: Uint8Array, got: Uint8Array, step: number): number {
  const frames = got.length / THUMB;
  const { least, count } = offsetsOf(sent.length / THUMB, frames, step);
  let sum = 0;
  for (let n = 0; n < SAMPLES; n++) {
    const frame = Math.floor(((n + 0.5) * frames) / SAMPLES);
    let best = Infinity;
    for (let offset = least; offset < least + count; offset++) {
      best = Math.min(best, differenceOf(sent, Math.round(frame * step) + offset, got, frame));
    }
    sum += best;
  }
  return sum;
}

function aligned(sent: Uint8Array, got: Uint8Array, step: number): Omit<Alignment, 'turn'> {
  const frames = got.length / THUMB;
  const { least, count } = offsetsOf(sent.length / THUMB, frames, step);
  let costs = new Float64Array(count);
  let next = new Float64Array(count);
  /** Whether the way to an offset at a frame jumped there, and where the least way stood the frame before. */
  const jumped = new Uint8Array(frames * count);
  const bests = new Int32Array(frames);
  for (let frame = 0; frame < frames; frame++) {
    const best = leastAt(costs);
    bests[frame] = best;
    const jump = (costs[best] as number) + (frame === 0 ? 0 : JUMP);
    const base = Math.round(frame * step) + least;
    for (let n = 0; n < count; n++) {
      const isJump = jump < (costs[n] as number);
      jumped[frame * count + n] = isJump ? 1 : 0;
      const before = isJump ? jump : (costs[n] as number);
      next[n] = before + differenceOf(sent, base + n, got, frame);
    }
    [costs, next] = [next, costs];
  }
  let at = leastAt(costs);
  const total = costs[at] as number;
  const runs: Run[] = [];
  let to = frames;
  for (let frame = frames - 1; frame >= 0; frame--) {
    const isStart = frame === 0 || jumped[frame * count + at] === 1;
    if (!isStart) continue;
    runs.unshift({ from: frame, to, sent: Math.round(frame * step) + least + at });
    to = frame;
    at = bests[frame] as number;
  }
  const jumps = runs.length - 1;
  return { runs, difference: (total - jumps * JUMP) / frames };
}

/** The place of the least value, of several that are the same the one nearest the beginning. */
function leastAt(values: Float64Array): number {
  let at = 0;
  for (let n = 1; n < values.length; n++) if ((values[n] as number) < (values[at] as number)) at = n;
  return at;
}

/** The frame that was sent of one that came back; it may lie outside of the film. */
export function sentFrame({ runs }: Pick<Alignment, 'runs'>, frame: number, step: number): number {
  const run = runs.findLast(({ from }) => from <= frame) ?? (runs[0] as Run);
  return run.sent + Math.round(frame * step) - Math.round(run.from * step);
}
