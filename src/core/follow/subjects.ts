import type { PictureRect } from '../picture/size';
import type { Evidence, SubjectKind, Track } from './evidence';
import { computeCoveredShare, findTrackPoint } from './track';

/** A subject of a shot. */
export interface Subject {
  /** From 1, the surest first. */
  number: number;
  track: Track;
  /** How much it looks like what the shot is about, 0…1. */
  score: number;
}

/** How far each kind is trusted to be what a shot is about. */
const TRUST: Record<SubjectKind, number> = {
  ...{ drawn: 1, face: 0.9, person: 0.9, animal: 0.7, vehicle: 0.6, thing: 0.5, motion: 0.35 },
};
/** Things and movement count by how far they go: all of it from this share of the picture on. */
const FAR = 0.4;
const STANDS_STILL = 0.35;
/** A subject of this share of the picture's area is as large as need be. */
const LARGE = 0.02;
/** Movement that is covered by a subject so often, by so much, is that subject. */
const SAME = { often: 0.5, much: 0.5 };
/** Minimum duration of a subject, in seconds. */
const MIN_SECONDS = 0.5;
/** So many subjects are told. */
const MAX_SUBJECTS = 9;

/** The piece of a track in a range of frames; null where there is hardly any. */
function clipTrack(track: Track, range: { in: number; out: number }): Track | null {
  const points = track.points.filter(({ frame }) => frame >= range.in && frame < range.out);
  return points.length > 1 ? { ...track, points } : null;
}

/**
 * The subjects of a shot, those first that it is most likely about.
 * @param range the shot's frames at the master's own rate, half-open. @param rate that rate, frames a second.
 */
export function listSubjects(
  { spans, drawn }: Pick<Evidence, 'spans' | 'drawn'>,
  range: { in: number; out: number },
  rate: number,
): Subject[] {
  const near = spans.filter((span) => span.in < range.out && span.out > range.in);
  const tracks = [...near.flatMap((span) => span.tracks), ...drawn].flatMap(
    (track) => clipTrack(track, range) ?? [],
  );
  const seconds = ({ points }: Track) =>
    ((points[points.length - 1]?.frame ?? 0) - (points[0]?.frame ?? 0)) / rate;
  const length = (range.out - range.in) / rate;
  const long = tracks.filter((track) => seconds(track) >= Math.min(MIN_SECONDS, length / 2));
  const named = long.filter(({ kind }) => kind !== 'motion');
  const own = long.filter(({ kind }) => kind === 'motion').filter((moving) => !isPartOf(moving, named));
  return [...named, ...own]
    .map((track) => ({ track, score: computeScore(track, seconds(track) / length) }))
    .sort((a, b) => b.score - a.score)
    .slice(0, MAX_SUBJECTS)
    .map((subject, i) => ({ ...subject, number: i + 1 }));
}

/** Tells whether something that moves is one of the named subjects. */
const isPartOf = (moving: Track, named: readonly Track[]): boolean =>
  named.some((track) => {
    const covered = moving.points.filter(({ frame, box }) => {
      const other = findTrackPoint(track, frame);
      return other !== null && computeCoveredShare(box, other.box) > SAME.much;
    });
    return covered.length > SAME.often * moving.points.length;
  });

function computeScore({ kind, points }: Track, presence: number): number {
  const mean = (of: (point: Track['points'][number]) => number) =>
    points.reduce((sum, point) => sum + of(point), 0) / points.length;
  const confidence = mean((point) => point.confidence);
  const area = mean(({ box }) => box.width * box.height);
  const central = mean(({ box }) => 1 - Math.abs(box.x + box.width / 2 - 0.5));
  const size = Math.min(1, area / LARGE) ** 0.3;
  const middles = points.map(({ box }) => [box.x + box.width / 2, box.y + box.height / 2] as const);
  const span = (axis: 0 | 1) =>
    Math.max(...middles.map((middle) => middle[axis])) - Math.min(...middles.map((middle) => middle[axis]));
  const goes = Math.min(1, Math.hypot(span(0), span(1)) / FAR);
  const moving =
    kind === 'thing' || kind === 'motion' ? STANDS_STILL + (1 - STANDS_STILL) * goes : 0.8 + 0.2 * goes;
  return TRUST[kind] * confidence ** 0.5 * Math.min(1, presence) ** 0.7 * size * central ** 0.3 * moving;
}

/** The subject that is at a place at a frame, the one whose middle is nearest; null where there is none. */
export function findSubject(
  subjects: readonly Subject[],
  frame: number,
  place: { x: number; y: number },
  reach = 0,
): Subject | null {
  const found = subjects.flatMap((subject) => {
    const point = findTrackPoint(subject.track, frame, reach);
    if (!point || !holds(point.box, place)) return [];
    const { x, y, width, height } = point.box;
    return [{ subject, far: Math.hypot(x + width / 2 - place.x, y + height / 2 - place.y) }];
  });
  return found.sort((a, b) => a.far - b.far)[0]?.subject ?? null;
}

const holds = ({ x, y, width, height }: PictureRect, place: { x: number; y: number }): boolean =>
  place.x >= x && place.x <= x + width && place.y >= y && place.y <= y + height;

/** Two subjects this alike in score are hard to tell apart. */
const ALIKE = 0.92;

/** Tells whether it is not plain which of the subjects a shot is about. */
export const isDivided = ([first, second]: readonly Subject[]): boolean =>
  first !== undefined && second !== undefined && second.score > ALIKE * first.score;
