import { computeMedian } from '../figures/median';
import type { PictureRect } from '../picture/size';
import type { Track, TrackPoint } from './evidence';
import { computeCoveredShare, findTrackPoint, computeUnlikeness } from './track';

/** Maximum gap that is bridged, in seconds: what stands still for a moment is not seen to move. */
const MAX_GAP = 2;
/** How far the two ends may lie apart, in sizes of the subject, and a second of the gap. */
const REACH = 0.6;
const REACH_A_SECOND = 0.5;
/** How much larger one of the two ends may be. */
const MAX_GROWTH = 2.2;
/** How unlike the two may look, in levels. */
const MAX_UNLIKE = 30;

/** Tracks of which one ends where and about when another of its kind begins, made one: the nearest ones first. */
export function joinTracks(tracks: readonly Track[], rate: number): Track[] {
  const left = [...tracks];
  for (;;) {
    const pairs = left.flatMap((a) =>
      left.flatMap((b) => {
        const far = a === b ? Infinity : computeDistance(a, b, rate);
        return far < Infinity ? [{ a, b, far }] : [];
      }),
    );
    const [best] = pairs.sort((one, two) => one.far - two.far);
    if (!best) return left;
    left.splice(left.indexOf(best.a), 1);
    left.splice(left.indexOf(best.b), 1, bridgeTracks(best.a, best.b));
  }
}

/** Pieces of what moves go together where the one covers so much of the other, so often, in so many samples at least. */
const TOGETHER = { much: 0.5, often: 0.6, samples: 4 };

/** Tracks of movement that go together made one: of what is large now this part is seen to move, now that. */
export function joinPieces(tracks: readonly Track[]): Track[] {
  const [moving, named] = [
    tracks.filter(({ kind }) => kind === 'motion'),
    tracks.filter(({ kind }) => kind !== 'motion'),
  ];
  const made: Track[] = [];
  for (const track of [...moving].sort((a, b) => b.points.length - a.points.length)) {
    const at = made.findIndex((other) => goTogether(other, track));
    if (at < 0) made.push(track);
    else made[at] = together(made[at] as Track, track);
  }
  return [...named, ...made];
}

function goTogether(a: Track, b: Track): boolean {
  const common = b.points.flatMap((point) => {
    const other = findTrackPoint(a, point.frame);
    return other
      ? [Math.max(computeCoveredShare(point.box, other.box), computeCoveredShare(other.box, point.box))]
      : [];
  });
  const covered = common.filter((share) => share > TOGETHER.much).length;
  return common.length >= TOGETHER.samples && covered > TOGETHER.often * common.length;
}

/** Two tracks as one that holds both, at the frames of either. */
function together(a: Track, b: Track): Track {
  const frames = [...new Set([...a.points, ...b.points].map(({ frame }) => frame))].sort((x, y) => x - y);
  const points = frames.flatMap((frame): TrackPoint[] => {
    const [one, other] = [findTrackPoint(a, frame), findTrackPoint(b, frame)];
    if (!one || !other) return [one ?? other].flatMap((point) => point ?? []);
    return [{ frame, box: both(one.box, other.box), confidence: Math.max(one.confidence, other.confidence) }];
  });
  return { kind: a.kind, look: a.look ?? b.look, points };
}

function both(a: PictureRect, b: PictureRect): PictureRect {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  return {
    ...a,
    ...{ x, y },
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  };
}

/** How far the end of one track is from the beginning of another, in seconds and sizes; Infinity where they are two. */
function computeDistance(a: Track, b: Track, rate: number): number {
  const [end, start] = [a.points[a.points.length - 1], b.points[0]];
  if (!end || !start || a.kind !== b.kind) return Infinity;
  const gap = (start.frame - end.frame) / rate;
  if (gap <= 0 || gap > MAX_GAP) return Infinity;
  const growth = Math.sqrt(usualArea(b.points.slice(0, NEAR)) / usualArea(a.points.slice(-NEAR)));
  if (growth > MAX_GROWTH || growth < 1 / MAX_GROWTH) return Infinity;
  if (a.look && b.look && computeUnlikeness(a.look, b.look) > MAX_UNLIKE) return Infinity;
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

/** Number of samples whose median size is used: what slows down is seen in pieces. */
const NEAR = 11;
const usualArea = (points: readonly TrackPoint[]): number =>
  computeMedian(points.map(({ box }) => box.width * box.height));

/** Two tracks as one; between them nothing was seen. */
function bridgeTracks(a: Track, b: Track): Track {
  const [end, start] = [a.points[a.points.length - 1] as TrackPoint, b.points[0] as TrackPoint];
  const unseen = [
    { ...end, frame: end.frame + 1, confidence: 0 },
    { ...start, frame: start.frame - 1, confidence: 0 },
  ].filter(({ frame }, i) => (i === 0 ? frame < start.frame - 1 : frame > end.frame + 1));
  return { kind: a.kind, look: a.look ?? b.look, points: [...a.points, ...unseen, ...b.points] };
}
