/** All numbers from the first to the second. */
export type Interval = readonly [number, number];

/** The interval between two numbers in either order. */
export const between = (a: number, b: number): Interval => (a <= b ? [a, b] : [b, a]);
export const plus = (a: Interval, b: Interval): Interval => [a[0] + b[0], a[1] + b[1]];
export const minus = (a: Interval, b: Interval): Interval => [a[0] - b[1], a[1] - b[0]];

/** Every product of a number of each (R. E. Moore, "Interval Analysis", 1966, chapter 2). */
export function times(a: Interval, b: Interval): Interval {
  const products = [a[0] * b[0], a[0] * b[1], a[1] * b[0], a[1] * b[1]] as const;
  return [Math.min(...products), Math.max(...products)];
}

/** An interval held between bounds that may themselves vary. */
export function heldWithin(value: Interval, low: Interval, high: Interval): Interval {
  return [Math.min(Math.max(value[0], low[0]), high[0]), Math.max(Math.min(value[1], high[1]), low[1])];
}

const RADIANS = Math.PI / 180;

/** |cos| and |sin| of every angle of an interval, in degrees, of less than a half turn. */
export function directions(angle: Interval): {
  cos: Interval;
  sin: Interval;
  absCos: Interval;
  absSin: Interval;
} {
  const cos = wave(angle, 0);
  const sin = wave(angle, 90);
  return { cos, sin, absCos: absolute(cos), absSin: absolute(sin) };
}

/** cos(angle − shift): its ends, and ±1 where a crest or a trough lies between. */
function wave([from, to]: Interval, shift: number): Interval {
  const cosine = (angle: number) => Math.cos((angle - shift) * RADIANS);
  const ends = between(cosine(from), cosine(to));
  const holds = (crest: number) =>
    Math.floor((to - shift - crest) / 360) > Math.ceil((from - shift - crest) / 360) - 1;
  return [holds(180) ? -1 : ends[0], holds(0) ? 1 : ends[1]];
}

const absolute = ([low, high]: Interval): Interval =>
  low >= 0 ? [low, high] : high <= 0 ? [-high, -low] : [0, Math.max(-low, high)];
