import { median } from '../figures/median';
import type { Track, TrackPoint } from './evidence';
import { unlikeness } from './track';

/** What stands still for a moment is not seen to move: so long a gap, in seconds, is bridged. */
const MOST_GAP = 2;
/** How far the two ends may lie apart, in sizes of the subject, and a second of the gap. */
const REACH = 0.6;
const REACH_A_SECOND = 0.5;
/** How much larger one of the two ends may be. */
const MOST_GROWTH = 2.2;
/** How unlike the two may look, in levels. */
const MOST_UNLIKE = 30;

/** Tracks of which one ends where and about when another of its kind begins, made one: the nearest ones first. */
export function joined(tracks: readonly Track[], rate: number): Track[] {
  const left = [...tracks];
  for (;;) {
    const pairs = left.flatMap((a) =>
      left.flatMap((b) => {
        const far = a === b ? Infinity : distance(a, b, rate);
        return far < Infinity ? [{ a, b, far }] : [];
      }),
    );
    const [best] = pairs.sort((one, two) => one.far - two.far);
    if (!best) return left;
    left.splice(left.indexOf(best.a), 1);
    left.splice(left.indexOf(best.b), 1, bridged(best.a, best.b));
  }
}

/** How far the end of one track is from the beginning of another, in seconds and sizes; Infinity where they are two. */
function distance(a: Track, b: Track, rate: number): number {
  const [end, start] = [a.points[a.points.length - 1], b.points[0]];
  if (!end || !start || a.kind !== b.kind) return Infinity;
  const gap = (start.frame - end.frame) / rate;
  if (gap <= 0 || gap > MOST_GAP) return Infinity;
  const growth = Math.sqrt(usualArea(b.points.slice(0, NEAR)) / usualArea(a.points.slice(-NEAR)));
  if (growth > MOST_GROWTH || growth < 1 / MOST_GROWTH) return Infinity;
  if (a.look && b.look && unlikeness(a.look, b.look) > MOST_UNLIKE) return Infinity;
  const along = (axis: 'x' | 'y', extent: 'width' | 'height') => {
    const size = Math.max(
      ...[...a.points.slice(-NEAR), ...b.points.slice(0, NEAR)].map(({ box }) => box[extent]),
    );
    const middle = ({ box }: TrackPoint) => box[axis] + box[extent] / 2;
    return Math.abs(middle(start) - middle(end)) / size;
  };
  const apart = Math.hypot(along('x', 'width'), along('y', 'height'));
  return apart <= REACH + REACH_A_SECOND * gap ? apart + gap : Infinity;
}

/** What slows down is seen in pieces: its size is that of several samples, the median. */
const NEAR = 11;
const usualArea = (points: readonly TrackPoint[]): number =>
  median(points.map(({ box }) => box.width * box.height));

/** Two tracks as one; between them nothing was seen. */
function bridged(a: Track, b: Track): Track {
  const [end, start] = [a.points[a.points.length - 1] as TrackPoint, b.points[0] as TrackPoint];
  const unseen = [
    { ...end, frame: end.frame + 1, confidence: 0 },
    { ...start, frame: start.frame - 1, confidence: 0 },
  ].filter(({ frame }, i) => (i === 0 ? frame < start.frame - 1 : frame > end.frame + 1));
  return { kind: a.kind, look: a.look ?? b.look, points: [...a.points, ...unseen, ...b.points] };
}
