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
  /** Turn that brings it to lie as it was sent. */
  turn: Turn;
  runs: Run[];
  /** Mean difference of a thumb's samples, in codes of 8 bits. */
  difference: number;
  /** Frames that were sent and are not there: at the beginning, at the end, and in between. */
  missing: { start: number; end: number; between: number };
}

/** Frames that may stand before the beginning, or after the end. */
const MARGIN = 8;
/** A frame that nothing was sent for differs by so much. */
const NOTHING = 48;
/** A jump must be worth so much of difference, summed over frames: still pictures make none. */
const JUMP = 40;
/** Frames by offsets that are held at most: ten minutes that lost half of themselves. */
const MAX_CELLS = 100e6;
/** Frames that are looked at to find how a film was turned. */
const SAMPLES = 24;
/** Frames that came back stand further apart than this, in frames that were sent, where some were left out everywhere. */
const APART = 1.05;
/** So many of the distances count: the rest are holes. */
const MAX_DISTANCES = 0.95;

/**
 * Finds for every frame of a film that came back the frame that was sent, by the least difference of thumbs with as few
 * jumps as they allow (A. J. Viterbi, "Error bounds for convolutional codes and an asymptotically optimum decoding
 * algorithm", IEEE Transactions on Information Theory 13(2), 1967).
 * @param sent thumbs one after another. @param places where each frame that came back would lie among those that were
 * sent, by its time, rising; as many as there are thumbs.
 * @throws RangeError where either has no frame.
 */
export function alignFilms(sent: Uint8Array, got: Uint8Array, places: ArrayLike<number>): Alignment {
  if (sent.length < THUMB || got.length < THUMB) throw new RangeError('a film has at least one frame');
  const whole = Array.from(places, Math.round);
  const { count } = findOffsets(sent.length / THUMB, whole);
  // What is so much longer or shorter is no copy of it.
  if (count * whole.length > MAX_CELLS) {
    const runs = [{ from: 0, to: whole.length, sent: 0 }];
    const missing = { start: 0, end: 0, between: 0 };
    return { turn: TURNS[0] as Turn, runs, difference: Infinity, missing };
  }
  const turn = TURNS.map((turn) => ({
    turn,
    cost: computeMinCost(sent, turnThumbs(got, turn), whole),
  })).reduce((a, b) => (b.cost < a.cost ? b : a)).turn;
  const found = alignFrames(sent, turnThumbs(got, turn), whole);
  return { turn, ...found, missing: listMissing(found.runs, places, sent.length / THUMB) };
}

/** Offsets that are tried: how far frames that were sent are ahead of those that came back. */
function findOffsets(sent: number, places: readonly number[]): { least: number; count: number } {
  const spare = sent - ((places[places.length - 1] as number) + 1);
  const least = Math.min(0, spare) - MARGIN;
  return { least, count: Math.max(0, spare) + MARGIN - least + 1 };
}

/** Mean difference of two thumbs; for one that is not there, a large one. */
function computeDifference(a: Uint8Array, frameA: number, b: Uint8Array, frameB: number): number {
  const [from, to] = [frameA * THUMB, frameB * THUMB];
  if (from < 0 || from >= a.length) return NOTHING;
  let sum = 0;
  for (let n = 0; n < THUMB; n++) sum += Math.abs((a[from + n] as number) - (b[to + n] as number));
  return sum / THUMB;
}

/** Computes the minimum cost of some frames, each wherever it fits best. */
function computeMinCost(sent: Uint8Array, got: Uint8Array, places: readonly number[]): number {
  const frames = places.length;
  const { least, count } = findOffsets(sent.length / THUMB, places);
  let sum = 0;
  for (let n = 0; n < SAMPLES; n++) {
    const frame = Math.floor(((n + 0.5) * frames) / SAMPLES);
    let best = Infinity;
    for (let offset = least; offset < least + count; offset++) {
      best = Math.min(best, computeDifference(sent, (places[frame] as number) + offset, got, frame));
    }
    sum += best;
  }
  return sum;
}

function alignFrames(
  sent: Uint8Array,
  got: Uint8Array,
  places: readonly number[],
): Pick<Alignment, 'runs' | 'difference'> {
  const frames = places.length;
  const { least, count } = findOffsets(sent.length / THUMB, places);
  let costs = new Float64Array(count);
  let next = new Float64Array(count);
  /**
   * For each offset at a frame, whether its best path jumped there, and where the best path was at the frame
   * before.
   */
  const jumped = new Uint8Array(frames * count);
  const bests = new Int32Array(frames);
  for (let frame = 0; frame < frames; frame++) {
    const best = findMin(costs);
    bests[frame] = best;
    const jump = (costs[best] as number) + (frame === 0 ? 0 : JUMP);
    const base = (places[frame] as number) + least;
    for (let n = 0; n < count; n++) {
      const isJump = jump < (costs[n] as number);
      jumped[frame * count + n] = isJump ? 1 : 0;
      const before = isJump ? jump : (costs[n] as number);
      next[n] = before + computeDifference(sent, base + n, got, frame);
    }
    [costs, next] = [next, costs];
  }
  let at = findMin(costs);
  const total = costs[at] as number;
  const runs: Run[] = [];
  let to = frames;
  for (let frame = frames - 1; frame >= 0; frame--) {
    const isStart = frame === 0 || jumped[frame * count + at] === 1;
    if (!isStart) continue;
    runs.unshift({ from: frame, to, sent: (places[frame] as number) + least + at });
    to = frame;
    at = bests[frame] as number;
  }
  const jumps = runs.length - 1;
  return { runs, difference: (total - jumps * JUMP) / frames };
}

/** The place of the least value, of several that are the same the one nearest the beginning. */
function findMin(values: Float64Array): number {
  let at = 0;
  for (let n = 1; n < values.length; n++) if ((values[n] as number) < (values[at] as number)) at = n;
  return at;
}

/** The frame that was sent of one that came back; it may lie outside of the film. */
export function sentFrame(runs: readonly Run[], frame: number, places: ArrayLike<number>): number {
  const run = runs.findLast(({ from }) => from <= frame) ?? (runs[0] as Run);
  return run.sent + Math.round(places[frame] as number) - Math.round(places[run.from] as number);
}

/** Frames that were sent and are missing; those that a lower rate leaves out everywhere are no cut. */
function listMissing(runs: readonly Run[], places: ArrayLike<number>, sent: number): Alignment['missing'] {
  const distances = Array.from({ length: Math.max(0, places.length - 1) }, (_, n) => {
    return (places[n + 1] as number) - (places[n] as number);
  }).sort((a, b) => a - b);
  const usual = distances[Math.floor(MAX_DISTANCES * (distances.length - 1))] ?? 1;
  const [stride, slack] = usual > APART ? [Math.ceil(usual), Math.ceil(usual)] : [1, 0];
  const dropSlack = (frames: number) => (frames > slack ? frames : 0);
  let between = 0;
  for (const [n, { from, sent: next }] of runs.entries()) {
    if (n > 0) between += Math.max(0, next - sentFrame(runs.slice(0, n), from - 1, places) - stride);
  }
  const last = sentFrame(runs, places.length - 1, places);
  return {
    start: dropSlack(Math.max(0, (runs[0] as Run).sent)),
    end: dropSlack(Math.max(0, sent - last - stride)),
    between: dropSlack(between),
  };
}
