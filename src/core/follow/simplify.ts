import { type Ease, applyEase, EASES } from '../framing/easing';
import { clamp } from '../picture/size';

/** A point of a path: values at a frame. */
export interface PathPoint {
  frame: number;
  values: readonly number[];
  /** It has to be kept, with its ease to the next; others are kept where they are needed. */
  pin?: { ease: Ease } | undefined;
}

/** A point that is kept, and the curve from there to the next that is. */
export interface KeptPoint {
  point: PathPoint;
  ease: Ease;
}

/** A point with what is known of each of its values: whether it turns round there. */
interface Knot extends PathPoint {
  turns: readonly boolean[];
}

/** A curve whose control points are all nearer than this to a named one's is that one. */
const LIKE = 0.02;
const NAMED: readonly (readonly [Ease, readonly [number, number, number, number]])[] = [
  [EASES.linear, [1 / 3, 1 / 3, 2 / 3, 2 / 3]],
];

/**
 * A path by few of its points: from each the furthest that one curve reaches with every point between within the
 * tolerance. The curve leaves and arrives as fast as the path goes there, so that nothing jerks where two meet.
 *
 * @param path in the order of its frames. @param tolerance for each value, in its unit.
 */
export function simplifyPath(path: readonly PathPoint[], tolerance: readonly number[]): KeptPoint[] {
  if (isStill(path, tolerance)) return path.slice(0, 1).map((point) => ({ point, ease: null }));
  const turning = tolerance.map((least, k) => turningPoints(path, k, least));
  const knots = path.map((point, i): Knot => ({ ...point, turns: turning.map((points) => points.has(i)) }));
  const kept: KeptPoint[] = [];
  let from = 0;
  while (from < path.length - 1) {
    const { to, ease } = furthest(knots, from, tolerance);
    kept.push({ point: path[from] as PathPoint, ease });
    from = to;
  }
  const last = path[from];
  if (last) kept.push({ point: last, ease: last.pin?.ease ?? null });
  return kept;
}

function isStill(path: readonly PathPoint[], tolerance: readonly number[]): boolean {
  const [first] = path;
  return path.every(
    ({ values, pin }) =>
      !pin &&
      values.every(
        (value, k) => Math.abs(value - (first?.values[k] as number)) <= (tolerance[k] as number) / 2,
      ),
  );
}

function furthest(
  path: readonly Knot[],
  from: number,
  tolerance: readonly number[],
): { to: number; ease: Ease } {
  const start = path[from] as PathPoint;
  const stop = path.findIndex(({ pin, turns }, i) => i > from && (pin || turns.some(Boolean)));
  for (let to = stop < 0 ? path.length - 1 : stop; to > from + 1; to--) {
    const ease = start.pin ? start.pin.ease : fitCurve(path, from, to, tolerance);
    if (reaches(path, from, to, ease, tolerance)) return { to, ease };
  }
  return { to: from + 1, ease: start.pin ? start.pin.ease : fitCurve(path, from, from + 1, tolerance) };
}

/**
 * Points where a value turns round, by more than the tolerance: a curve from one place to another does not turn, so each
 * is kept, and there the value stands still for a moment.
 */
function turningPoints(path: readonly PathPoint[], k: number, tolerance: number): Set<number> {
  const found = new Set<number>();
  let direction = 0;
  let extreme = 0;
  path.forEach(({ values }, i) => {
    const gone = (values[k] as number) - (path[extreme]?.values[k] as number);
    if (gone * direction >= 0 && direction !== 0) extreme = i;
    else if (Math.abs(gone) > tolerance) {
      if (direction !== 0) found.add(extreme);
      direction = Math.sign(gone);
      extreme = i;
    }
  });
  return found;
}

/** How fast a value changes at a point, a frame. */
function computeSlope(path: readonly Knot[], i: number, k: number): number {
  if (path[i]?.turns[k] === true) return 0;
  const [a, b] = [path[Math.max(0, i - 1)] as PathPoint, path[Math.min(path.length - 1, i + 1)] as PathPoint];
  return ((b.values[k] as number) - (a.values[k] as number)) / Math.max(1, b.frame - a.frame);
}

/**
 * The curve between two points that leaves and arrives as fast as the path, by the value that changes most: with its
 * control points at a third and two thirds of the time, a cubic Bézier is Hermite's cubic by its slopes.
 */
function fitCurve(path: readonly Knot[], from: number, to: number, tolerance: readonly number[]): Ease {
  const [a, b] = [path[from] as PathPoint, path[to] as PathPoint];
  const ways = a.values.map((value, k) => (b.values[k] as number) - value);
  const share = (k: number) => Math.abs(ways[k] as number) / (tolerance[k] as number);
  const most = ways.reduce((best, _, k) => (share(k) > share(best) ? k : best), 0);
  const way = ways[most] as number;
  if (way === 0) return null;
  const third = (slope: number) => clamp((slope * (b.frame - a.frame)) / way / 3, 0, 1);
  const curve: Ease = [
    1 / 3,
    third(computeSlope(path, from, most)),
    2 / 3,
    1 - third(computeSlope(path, to, most)),
  ];
  const named = NAMED.find(([, points]) =>
    points.every((point, i) => Math.abs(point - (curve[i] as number)) < LIKE),
  );
  return named ? named[0] : (curve.map((point) => Number(point.toFixed(3))) as typeof curve);
}

function reaches(
  path: readonly PathPoint[],
  from: number,
  to: number,
  ease: Ease,
  tolerance: readonly number[],
): boolean {
  const [a, b] = [path[from] as PathPoint, path[to] as PathPoint];
  for (let i = from + 1; i < to; i++) {
    const { frame, values } = path[i] as PathPoint;
    const u = applyEase(ease, (frame - a.frame) / (b.frame - a.frame));
    const off = values.some((value, k) => {
      const [first, last] = [a.values[k] as number, b.values[k] as number];
      return Math.abs(first + (last - first) * u - value) > (tolerance[k] as number);
    });
    if (off) return false;
  }
  return true;
}
