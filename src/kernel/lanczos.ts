/** Lobes of the window: Lanczos-3. */
const LOBES = 3;
/** Taps are 14-bit fixed point, so that tap × 8-bit sample × overshoot stays inside 32 bits after two passes. */
export const TAP_ONE = 1 << 14;

/** The polyphase filter of one axis: for each output sample, where its taps start and their weights. */
export interface AxisFilter {
  /** Taps per output sample. */
  taps: number;
  /** First source sample of each output sample; may lie outside the source: see {@link clampStarts}. */
  starts: Int32Array;
  /** Weights, `taps` per output sample, each row summing to {@link TAP_ONE} exactly. */
  weights: Int16Array;
}

/**
 * The Lanczos window of three lobes: sinc(x) · sinc(x/3) for |x| < 3, else 0.
 * Source: C. E. Duchon, "Lanczos Filtering in One and Two Dimensions", J. Appl. Meteorology 18 (1979).
 */
export function lanczos3(x: number): number {
  if (x === 0) return 1;
  if (Math.abs(x) >= LOBES) return 0;
  const p = Math.PI * x;
  return (LOBES * Math.sin(p) * Math.sin(p / LOBES)) / (p * p);
}

/** Taps of an output sample. @param step source samples per output sample, over 0. */
export const countTaps = (step: number): number => 2 * Math.ceil(LOBES * Math.max(1, step));

/**
 * Filter of one axis. Output sample `k` sits at source coordinate `origin + k · step`, in samples, where sample
 * `i` sits at `i`. When `step` > 1 (a reduction) the filter is widened by it, so that nothing aliases.
 *
 * @param count output samples, 1 or more.
 * @param origin source position of output sample 0, in samples; any finite number.
 * @param step source samples per output sample, over 0.
 * @throws RangeError when an argument is out of its range.
 */
export function axisFilter(count: number, origin: number, step: number): AxisFilter {
  if (!(count >= 1) || !Number.isInteger(count))
    throw new RangeError(`count must be a whole number, not ${count}`);
  if (!(step > 0) || !Number.isFinite(origin)) throw new RangeError('step must be over 0 and origin finite');
  const widen = Math.max(1, step);
  const taps = countTaps(step);
  const starts = new Int32Array(count);
  const weights = new Int16Array(count * taps);
  const raw = new Float64Array(taps);
  for (let k = 0; k < count; k++) {
    const centre = origin + k * step;
    const start = Math.floor(centre) - taps / 2 + 1;
    starts[k] = start;
    let sum = 0;
    for (let t = 0; t < taps; t++) sum += raw[t] = lanczos3((start + t - centre) / widen);
    quantise(raw, sum, weights, k * taps);
  }
  return { taps, starts, weights };
}

/** Rounds weights to fixed point; what rounding lost goes to the largest, so that a constant stays constant. */
function quantise(raw: Float64Array, sum: number, out: Int16Array, from: number): void {
  let left = TAP_ONE;
  let largest = 0;
  for (let t = 0; t < raw.length; t++) {
    const value = Math.round(((raw[t] ?? 0) / sum) * TAP_ONE);
    out[from + t] = value;
    left -= value;
    if (value > (out[from + largest] ?? 0)) largest = t;
  }
  out[from + largest] = (out[from + largest] ?? 0) + left;
}

/** Samples of a source that may be read, both included. */
export interface SampleReach {
  first: number;
  last: number;
}

/** Moves every tap that falls outside a source's reach onto its edge sample, so that edge samples clamp. */
export function clampStarts(filter: AxisFilter, { first, last }: SampleReach): AxisFilter {
  const { taps } = filter;
  const starts = filter.starts.map((start) => Math.min(Math.max(start, first), last));
  const weights = new Int16Array(filter.weights.length);
  filter.starts.forEach((from, k) => {
    const start = starts[k] as number;
    for (let t = 0; t < taps; t++) {
      const slot = k * taps + Math.min(Math.max(from + t, first), last) - start;
      weights[slot] = (weights[slot] as number) + (filter.weights[k * taps + t] as number);
    }
  });
  return { taps, starts, weights };
}
