import { MAX_FRAMES } from '../figures/bounded';
import { type FrameRate, MAX_FPS, rateValue, STANDARD_RATES } from './frame-rate';

/** Rate that the timestamps of a track show. */
export interface DetectedRate {
  /**
   * The exact rate; for a varying one, the standard rate that its pictures were left out of, else the nearest one.
   */
  rate: FrameRate;
  /** True when all frames have the same duration. */
  constant: boolean;
  /** Frames in the track at `rate`. */
  frames: number;
  /** How long a frame lasts, in seconds. */
  times: { least: number; mean: number; greatest: number };
  /** Frames at `rate` that show a picture again, and pictures that no frame shows. */
  repeated: number;
  dropped: number;
}

/** A stamp may be off its place by this much of a frame: containers that count milliseconds round. */
const STAMP_TOLERANCE = 0.35;
/** A standard rate is taken where the whole track drifts from it by less than this many frames. */
const DRIFT_TOLERANCE = 0.5;

/**
 * The rate of a track from the start times of its frames, in seconds, in any order.
 *
 * @param stamps at least one, finite.
 * @param lastDuration how long the last frame lasts, in seconds; only used when there is one frame.
 * @throws RangeError without a frame.
 */
export function detectRate(stamps: ArrayLike<number>, lastDuration: number): DetectedRate {
  const times = Float64Array.from(stamps).sort();
  const first = times[0];
  const last = times[times.length - 1];
  if (first === undefined || last === undefined) throw new RangeError('a track without frames has no rate');
  if (times.length === 1 || last <= first) {
    const mean = lastDuration > 0 ? lastDuration : 1 / 25;
    const rate = nearestStandard(1 / mean);
    return {
      rate,
      constant: true,
      frames: 1,
      times: { least: mean, mean, greatest: mean },
      repeated: 0,
      dropped: 0,
    };
  }
  const mean = (last - first) / (times.length - 1);
  const steps = times.subarray(1).map((time, n) => time - (times[n] as number));
  const spread = steps.reduce(
    ({ least, greatest }, step) => ({ least: Math.min(least, step), greatest: Math.max(greatest, step) }),
    { least: Infinity, greatest: 0 },
  );
  const facts = { times: { ...spread, mean } };
  const standard = bestFit(times) ?? rationalRate(times, mean);
  if (standard) {
    return { ...facts, rate: standard, constant: true, frames: times.length, repeated: 0, dropped: 0 };
  }
  const rate = gridFit(times) ?? nearestStandard(1 / mean);
  return { ...facts, rate, constant: false, ...mapToRate(times, rate) };
}

/**
 * Maps pictures at uneven times to an even rate: each frame shows the picture that is on screen then.
 * @param times in order, in seconds.
 */
function mapToRate(
  times: Float64Array,
  rate: FrameRate,
): { frames: number; repeated: number; dropped: number } {
  const value = rateValue(rate);
  const first = times[0] ?? 0;
  const frames = Math.round(((times[times.length - 1] ?? 0) - first) * value) + 1;
  // Stamps years apart are no film: whoever reads its facts refuses so many frames.
  if (frames > MAX_FRAMES) return { frames, repeated: 0, dropped: 0 };
  let shown = 0;
  let before = -1;
  let picture = 0;
  for (let n = 0; n < frames; n++) {
    const now = first + (n + STAMP_TOLERANCE) / value;
    while (picture + 1 < times.length && (times[picture + 1] as number) <= now) picture += 1;
    if (picture !== before) shown += 1;
    before = picture;
  }
  return { frames, repeated: frames - shown, dropped: times.length - shown };
}

/** The standard rate that fits with the least drift: on a short track 59.94 and 60 both fit. */
function bestFit(times: Float64Array): FrameRate | undefined {
  const span = (times[times.length - 1] as number) - (times[0] as number);
  const drift = (rate: FrameRate) => Math.abs(span * rateValue(rate) - (times.length - 1));
  return STANDARD_RATES.filter((rate) => fits(times, rate)).sort((a, b) => drift(a) - drift(b))[0];
}

function fits(times: Float64Array, rate: FrameRate): boolean {
  const start = times[0] as number;
  const value = rateValue(rate);
  const total = ((times[times.length - 1] as number) - start) * value;
  if (Math.abs(total - (times.length - 1)) > DRIFT_TOLERANCE) return false;
  return times.every((time, n) => Math.abs((time - start) * value - n) <= STAMP_TOLERANCE);
}

/** On a grid a stamp is off its place by no more than rounding to milliseconds makes of it. */
const GRID_TOLERANCE = 0.1;
/** A grid is taken where at least this share of its places has a picture. */
const MIN_FILLED = 0.5;

/** The lowest standard rate of which every stamp is a whole number of frames: pictures were left out, none is lost. */
function gridFit(times: Float64Array): FrameRate | undefined {
  const start = times[0] as number;
  const span = (times[times.length - 1] as number) - start;
  const off = (rate: FrameRate) => {
    const value = rateValue(rate);
    return times.reduce((most, time) => {
      const place = (time - start) * value;
      return Math.max(most, Math.abs(place - Math.round(place)));
    }, 0);
  };
  return STANDARD_RATES.filter((rate) => (times.length - 1) / (span * rateValue(rate)) >= MIN_FILLED)
    .map((rate) => ({ rate, off: off(rate) }))
    .filter(({ off }) => off <= GRID_TOLERANCE)
    .sort((a, b) => Math.round(rateValue(a.rate)) - Math.round(rateValue(b.rate)) || a.off - b.off)[0]?.rate;
}

/** Largest denominator of a rate that is no standard one. */
const MAX_DEN = 1001;

/** A constant rate that is no standard one: the simplest fraction that the whole track keeps to, such as 50/3. */
function rationalRate(times: Float64Array, mean: number): FrameRate | undefined {
  return convergents(1 / mean).find(
    (rate) => rate.num > 0 && rateValue(rate) <= MAX_FPS && fits(times, rate),
  );
}

/** The continued fraction's convergents of a value, simplest first. */
function convergents(value: number): FrameRate[] {
  const found: FrameRate[] = [];
  let [before, now] = [
    { num: 0, den: 1 },
    { num: 1, den: 0 },
  ];
  for (let rest = value; ; rest = 1 / (rest - Math.floor(rest))) {
    const whole = Math.floor(rest);
    [before, now] = [now, { num: whole * now.num + before.num, den: whole * now.den + before.den }];
    if (!Number.isFinite(rest) || now.den > MAX_DEN) return found;
    found.push(now);
  }
}

/** The standard rate whose ratio to a value is nearest to 1. @param fps over 0. */
export function nearestStandard(fps: number): FrameRate {
  const distance = (rate: FrameRate) => Math.abs(Math.log(rateValue(rate) / fps));
  return STANDARD_RATES.reduce((best, rate) => (distance(rate) < distance(best) ? rate : best));
}
