import { z } from 'zod';
import { boundedNumber } from '../figures/bounded';

const time = boundedNumber(0, 1);
/** Half of a curve whose heights lie in 0…1 has heights from −1/3 to 4/3. */
const [MIN_HEIGHT, MAX_HEIGHT] = [-0.5, 1.5];
const height = boundedNumber(MIN_HEIGHT, MAX_HEIGHT);
/**
 * The curve from one keyframe to the next: a cubic Bézier from (0, 0) to (1, 1) by its control points x1, y1, x2, y2
 * (CSS Easing Functions Level 1, section 2.2); null is a straight line. People set heights in 0…1, so that nothing
 * overshoots; what {@link splitEase} makes of such a curve does not either.
 */
export const easeSchema = z.tuple([time, height, time, height]).nullable();
export type Ease = z.infer<typeof easeSchema>;

/** The named curves of CSS Easing Functions Level 1, section 2.2.1. */
export const EASES = {
  linear: null,
  ease: [0.25, 0.1, 0.25, 1],
  'ease-in': [0.42, 0, 1, 1],
  'ease-out': [0, 0, 0.58, 1],
  'ease-in-out': [0.42, 0, 0.58, 1],
} as const satisfies Record<string, Ease>;
export type EaseName = keyof typeof EASES;

/** The name of a curve, or null for one that has none. */
export function easeName(ease: Ease): EaseName | null {
  const names = Object.keys(EASES) as EaseName[];
  return names.find((name) => String(EASES[name]) === String(ease)) ?? null;
}

/** Far below what a pixel of an 8K master can show. */
const PRECISION = 1e-9;

const bezier = (a: number, b: number, t: number): number =>
  (((1 - 3 * b + 3 * a) * t + 3 * b - 6 * a) * t + 3 * a) * t;
const slope = (a: number, b: number, t: number): number =>
  (3 * (1 - 3 * b + 3 * a) * t + 2 * (3 * b - 6 * a)) * t + 3 * a;

/**
 * How far a curve has come at `u` of its time.
 * @param u 0…1. @returns 0…1, never falling as u grows.
 */
export function applyEase(ease: Ease, u: number): number {
  if (!ease || u <= 0 || u >= 1) return Math.min(1, Math.max(0, u));
  const [, y1, , y2] = ease;
  return Math.min(1, Math.max(0, bezier(y1, y2, solveParameter(ease, u))));
}

/** The parameter of a curve's point at `u` of its time. */
function solveParameter([x1, , x2]: NonNullable<Ease>, u: number): number {
  let [low, high, t] = [0, 1, u];
  // Newton's steps, held between bounds that halve where a step would leave them: x never falls, so there is one t.
  for (let n = 0; n < 60; n++) {
    const miss = bezier(x1, x2, t) - u;
    if (Math.abs(miss) < PRECISION) break;
    if (miss > 0) high = t;
    else low = t;
    const next = t - miss / slope(x1, x2, t);
    t = next > low && next < high ? next : (low + high) / 2;
  }
  return t;
}

/**
 * A curve as two that meet at `u` of its time and run as it does (de Casteljau's construction), each by control points
 * of its own unit square. @param u over 0 and under 1.
 */
export function splitEase(ease: Ease, u: number): [before: Ease, after: Ease] {
  if (!ease) return [null, null];
  const [x1, y1, x2, y2] = ease;
  const t = solveParameter(ease, u);
  const [before, after] = splitCubic(x1, x2, t).map((times, half) => {
    const heights = splitCubic(y1, y2, t)[half] as Cubic;
    // One that does not rise has nothing to follow.
    if (heights[3] - heights[0] < FLAT) return null;
    return [...toUnit(times), ...toUnit(heights)];
  });
  const order = ([xa, xb, ya, yb]: number[]): Ease => [xa, computeHeight(ya), xb, computeHeight(yb)] as Ease;
  return [before ? order(before) : null, after ? order(after) : null];
}

/** Four control points of a cubic along one axis. */
type Cubic = readonly [number, number, number, number];
/** Slope under which a rise looks level to any eye. */
const FLAT = 1e-6;

/** The halves of the cubic 0, a, b, 1 at a parameter. */
function splitCubic(a: number, b: number, t: number): [before: Cubic, after: Cubic] {
  const mix = (from: number, to: number): number => from + (to - from) * t;
  const [one, two, three] = [mix(0, a), mix(a, b), mix(b, 1)];
  const [left, right] = [mix(one, two), mix(two, three)];
  const middle = mix(left, right);
  return [
    [0, one, left, middle],
    [middle, right, three, 1],
  ];
}

/** The inner control points of a cubic whose ends are brought to 0 and 1. */
const toUnit = ([from, a, b, to]: Cubic): [number, number] => [
  (a - from) / (to - from),
  (b - from) / (to - from),
];

const computeHeight = (height: number | undefined): number =>
  Math.min(MAX_HEIGHT, Math.max(MIN_HEIGHT, height ?? 0));
