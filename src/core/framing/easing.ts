import { z } from 'zod';
import { boundedNumber } from '../figures/bounded';

const control = boundedNumber(0, 1);
/**
 * The curve from one keyframe to the next: a cubic Bézier from (0, 0) to (1, 1) by its control points x1, y1, x2, y2
 * (CSS Easing Functions Level 1, section 2.2); null is a straight line. Heights stay in 0…1, so nothing overshoots.
 */
export const easeSchema = z.tuple([control, control, control, control]).nullable();
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
export function eased(ease: Ease, u: number): number {
  if (!ease || u <= 0 || u >= 1) return Math.min(1, Math.max(0, u));
  const [x1, y1, x2, y2] = ease;
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
  return Math.min(1, Math.max(0, bezier(y1, y2, t)));
}
