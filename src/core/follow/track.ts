import type { Rect } from '../picture/size';
import type { Track, TrackPoint } from './evidence';

/**
 * Where a track's subject is at a frame, between samples on a straight way; null before and after it.
 * @param reach so many frames before the first sample and after the last the subject is where it is there.
 */
export function trackAt({ points }: Pick<Track, 'points'>, frame: number, reach = 0): TrackPoint | null {
  const [first, last] = [points[0], points[points.length - 1]];
  if (!first || !last || frame < first.frame - reach || frame > last.frame + reach) return null;
  if (frame <= first.frame) return { ...first, frame };
  if (frame >= last.frame) return { ...last, frame };
  const after = points.findIndex((point) => point.frame >= frame);
  const next = points[after] as TrackPoint;
  if (next.frame === frame) return next;
  const before = points[after - 1] as TrackPoint;
  const u = (frame - before.frame) / (next.frame - before.frame);
  const mix = (a: number, b: number) => a + (b - a) * u;
  return {
    frame,
    confidence: mix(before.confidence, next.confidence),
    box: {
      x: mix(before.box.x, next.box.x),
      y: mix(before.box.y, next.box.y),
      width: mix(before.box.width, next.box.width),
      height: mix(before.box.height, next.box.height),
    },
  };
}

/** The share of two rectangles' union that both cover, 0…1. */
export function overlap(a: Rect, b: Rect): number {
  const both = sharedArea(a, b);
  return both / (a.width * a.height + b.width * b.height - both);
}

/** The share of a rectangle that another covers, 0…1. */
export const coveredBy = (a: Rect, b: Rect): number => sharedArea(a, b) / (a.width * a.height);

function sharedArea(a: Rect, b: Rect): number {
  const across = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const down = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  return Math.max(0, across) * Math.max(0, down);
}
