import { computeBounds, computeCorners, type Window } from '../framing/window';
import { type Point } from '../framing/framing';
import type { Rect } from '../picture/size';

const doubleArea = (corners: readonly Point[]): number =>
  corners.reduce((sum, a, i) => {
    const b = corners[(i + 1) % corners.length] as Point;
    return sum + a.x * b.y - b.x * a.y;
  }, 0);

/** On which side of the line from `a` to `b` a point lies; over 0 is inside for corners in clockwise order. */
const side = (a: Point, b: Point, point: Point): number =>
  (b.x - a.x) * (point.y - a.y) - (b.y - a.y) * (point.x - a.x);

/** Tells whether a point of the active picture lies in a window. @param live width over height. */
export function hasPoint(window: Window, point: Point, live: number): boolean {
  const corners = computeCorners(window, live);
  return corners.every((a, i) => side(a, corners[(i + 1) % 4] as Point, point) >= 0);
}

/** Where a point of the live area is seen in a window: 0…1 of the pane, outside of it past those. @param live as above. */
export function toWindowPoint(window: Window, point: Point, live: number): Point {
  const [corner, right, , down] = computeCorners(window, live);
  const across = { x: right.x - corner.x, y: right.y - corner.y };
  const downward = { x: down.x - corner.x, y: down.y - corner.y };
  const from = { x: point.x - corner.x, y: point.y - corner.y };
  const area = across.x * downward.y - across.y * downward.x;
  return {
    x: (from.x * downward.y - from.y * downward.x) / area,
    y: (across.x * from.y - across.y * from.x) / area,
  };
}

const apart = (a: Rect, b: Rect): boolean =>
  a.x >= b.x + b.width || b.x >= a.x + a.width || a.y >= b.y + b.height || b.y >= a.y + a.height;

/**
 * The share of a window's piece that lies in another's too.
 * Source: I. E. Sutherland and G. W. Hodgman, "Reentrant polygon clipping", CACM 17 (1974).
 *
 * @param live width over height. @returns 0…1.
 */
export function computeSharedShare(of: Window, other: Window, live: number): number {
  if (apart(computeBounds(of, live), computeBounds(other, live))) return 0;
  const clip = computeCorners(other, live);
  let piece: Point[] = computeCorners(of, live);
  const whole = doubleArea(piece);
  clip.forEach((a, i) => {
    const b = clip[(i + 1) % 4] as Point;
    const next: Point[] = [];
    piece.forEach((point, k) => {
      const before = piece[(k + piece.length - 1) % piece.length] as Point;
      const [was, is] = [side(a, b, before), side(a, b, point)];
      if (was * is < 0) {
        const u = was / (was - is);
        next.push({ x: before.x + (point.x - before.x) * u, y: before.y + (point.y - before.y) * u });
      }
      if (is >= 0) next.push(point);
    });
    piece = next;
  });
  return Math.min(1, Math.max(0, doubleArea(piece) / whole));
}
