import type { LiveRect, Rect } from '../picture/size';
import type { SubjectLook, Track } from './evidence';

/** Where a subject is at a frame, in some space. */
export interface PlacedPoint<Box extends Rect> {
  frame: number;
  box: Box;
  /** 0…1; 0 where it was not seen and is only held. */
  confidence: number;
}

/** A track in the space of a shot's live area: what its path is found from. */
export interface LiveTrack extends Pick<Track, 'kind'> {
  points: readonly PlacedPoint<LiveRect>[];
}

/**
 * Where a track's subject is at a frame, between samples on a straight way; null before and after it.
 * @param reach so many frames before the first sample and after the last the subject is where it is there.
 */
export function findTrackPoint<Box extends Rect>(
  { points }: { points: readonly PlacedPoint<Box>[] },
  frame: number,
  reach = 0,
): PlacedPoint<Box> | null {
  const [first, last] = [points[0], points[points.length - 1]];
  if (!first || !last || frame < first.frame - reach || frame > last.frame + reach) return null;
  if (frame <= first.frame) return { ...first, frame };
  if (frame >= last.frame) return { ...last, frame };
  // The first that is not before the frame: found by halves, since a long shot asks for each of its steps.
  let [low, high] = [0, points.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((points[middle] as PlacedPoint<Box>).frame < frame) low = middle + 1;
    else high = middle;
  }
  const next = points[low] as PlacedPoint<Box>;
  if (next.frame === frame) return next;
  const before = points[low - 1] as PlacedPoint<Box>;
  const u = (frame - before.frame) / (next.frame - before.frame);
  const mix = (a: number, b: number) => a + (b - a) * u;
  return {
    frame,
    confidence: mix(before.confidence, next.confidence),
    box: {
      ...next.box,
      x: mix(before.box.x, next.box.x),
      y: mix(before.box.y, next.box.y),
      width: mix(before.box.width, next.box.width),
      height: mix(before.box.height, next.box.height),
    },
  };
}

/** How unlike two subjects look: the mean difference of their colours, in levels. */
export const computeUnlikeness = (a: SubjectLook, b: SubjectLook): number =>
  a.reduce((sum, level, i) => sum + Math.abs(level - (b[i] as number)), 0) / a.length;

/** The share of two rectangles' union that both cover, 0…1. */
export function computeOverlap(a: Rect, b: Rect): number {
  const both = sharedArea(a, b);
  return both / (a.width * a.height + b.width * b.height - both);
}

/** The share of a rectangle that another covers, 0…1. */
export const computeCoveredShare = (a: Rect, b: Rect): number => sharedArea(a, b) / (a.width * a.height);

function sharedArea(a: Rect, b: Rect): number {
  const across = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const down = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  return Math.max(0, across) * Math.max(0, down);
}
