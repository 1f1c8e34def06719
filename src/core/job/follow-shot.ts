import type { Shot } from '../cut/shot';
import type { Evidence, TrackPoint } from '../follow/evidence';
import type { FollowResult, FollowPane, FollowTask } from '../follow/solve';
import { type Subject, findSubject, listSubjects } from '../follow/subjects';
import { findTrackPoint } from '../follow/track';
import type { FollowOrigin, FollowedPlace, FollowOptions } from '../framing/following';
import { type Framing, PLAIN_VALUES } from '../framing/framing';
import { ownFraming } from '../framing/keyframes';
import { enlargement } from '../framing/moves';
import { computeBounds, toWindow } from '../framing/window';
import type { Canvas } from '../layout/canvas';
import { findFraming } from '../layout/find-framing';
import type { Source } from '../master/source';
import { storedRect, uprightRect } from '../picture/live-area';
import { clamp, type LiveRect, type PictureRect } from '../picture/size';
import { shotPanes } from '../render/plan';
import { rateValue, scaleFrames } from '../time/frame-rate';
import type { Owner } from './commands/framing-commands';
import type { Clip } from './clip';
import { activeClip, findSource, type Work } from './job';

/** The framing that is to follow: of a shot on a track, shared by all canvases or of one by itself. */
export interface FramingToFollow {
  shot: Shot;
  track: string;
  owner: Owner;
}

/** A shot's frames at its master's own rate: what was looked at counts so. */
export function fileRange(work: Work, shot: Shot): { in: number; out: number } {
  const { source, rate } = findMaster(work, shot);
  return {
    in: scaleFrames(shot.in, source.rate, rate),
    out: Math.max(scaleFrames(shot.in, source.rate, rate) + 1, scaleFrames(shot.out, source.rate, rate)),
  };
}

/** A shot's master as its file says it is, and as repaired. */
function findMaster(work: Work, shot: Shot) {
  const master = work.masters.find(({ id }) => id === shot.master);
  if (!master) throw new RangeError(`the job has no master ${shot.master}`);
  return { master, source: findSource(work, shot.master), rate: master.rate };
}

/** A box of the file's upright picture, as it lies once that is turned or mirrored by a repair; both 0…1. */
function repairedBox(work: Work, shot: Shot): (box: PictureRect) => PictureRect {
  const { master, source } = findMaster(work, shot);
  return (box) => uprightRect(storedRect(box, master), source);
}

/** The other way: a box of the picture as it is on screen, as it lies in the file's upright picture. */
export function toFileBox(work: Work, shot: Shot, box: PictureRect): PictureRect {
  const { master, source } = findMaster(work, shot);
  return uprightRect(storedRect(box, source), master);
}

/** The subjects that were found in a shot, the surest first. */
export const listShotSubjects = (work: Work, shot: Shot, evidence: Evidence): Subject[] =>
  listSubjects(evidence, fileRange(work, shot), rateValue(findMaster(work, shot).rate));

/** Subjects that a framing follows, as far as they are still found. */
export function listFollowedSubjects(
  subjects: readonly Subject[],
  { subjects: places }: FollowOrigin,
): Subject[] {
  const found = places.flatMap((place) => findSubject(subjects, place.frame, place, 0) ?? []);
  return [...new Set(found)];
}

/** Somewhere a subject is, by which it is found again: where it was seen most surely. */
export function toFollowedPlace({ track }: Subject): FollowedPlace {
  const best = track.points.reduce((a, b) => (b.confidence > a.confidence ? b : a));
  const { x, y, width, height } = best.box;
  return { frame: best.frame, x: x + width / 2, y: y + height / 2 };
}

/** Where a subject is on screen at a frame of its shot, 0…1 of the upright picture; null where it is not. */
export function findSubjectBox(work: Work, shot: Shot, { track }: Subject, frame: number): TrackPoint | null {
  const { source, rate } = findMaster(work, shot);
  const point = findTrackPoint(track, (frame * rateValue(rate)) / rateValue(source.rate));
  return point && { ...point, box: repairedBox(work, shot)(point.box) };
}

/** Tells whether a clip keeps a piece of a shot. */
const keeps = ({ cut }: Clip, shot: Shot): boolean =>
  cut.some((range) => range.master === shot.master && range.in < shot.out && range.out > shot.in);

/** Shots that some clip keeps a piece of, and those of them that nobody has framed: the others need not be looked at. */
export function shotsToFollow(
  { edit }: Pick<Work, 'edit'>,
  shots: readonly Shot[],
  track: string,
): { kept: Shot[]; untouched: Shot[] } {
  const kept = shots.filter((shot) => edit.clips.some((clip) => keeps(clip, shot)));
  const framed = new Set(edit.framings.filter((framing) => framing.track === track).map(({ shot }) => shot));
  return { kept, untouched: kept.filter(({ id }) => !framed.has(id)) };
}

/** Canvases that show a framing: those of every clip that has a piece of its shot, or the one that it belongs to. */
function listCanvases({ edit }: Work, { shot, owner }: FramingToFollow): Canvas[] {
  if (owner !== 'shared') return activeClip(edit).canvases.filter(({ id }) => id === owner.canvas);
  const own = ({ detached }: Canvas) => detached.some((framing) => framing.shot === shot.id);
  const clips = edit.clips.filter((clip) => clip.id === edit.clip || keeps(clip, shot));
  return clips.flatMap(({ canvases }) => canvases.filter((canvas) => !own(canvas)));
}

/** The framing as it is. */
export function framingToFollow({ edit }: Work, { shot, track, owner }: FramingToFollow): Framing {
  const canvas =
    owner === 'shared'
      ? { detached: [] }
      : (activeClip(edit).canvases.find(({ id }) => id === owner.canvas) ?? { detached: [] });
  return findFraming(canvas, edit.framings, shot, track);
}

function panesOfFraming(
  work: Work,
  to: FramingToFollow,
  source: Source,
): (FollowPane & { enlarged: number })[] {
  const { turn, keyframes } = framingToFollow(work, to);
  const tilt = keyframes[0]?.tilt ?? 0;
  return listCanvases(work, to).flatMap((canvas) => {
    const { panes, liveSize } = shotPanes(canvas, work.edit.framings, to.shot, source);
    const live = liveSize.width / liveSize.height;
    return panes
      .filter(({ track, framing }) => track === to.track && framing !== null)
      .map(({ picture, framing }) => {
        const aspects = { pane: picture.width / picture.height, live };
        const window = toWindow({ ...PLAIN_VALUES, tilt }, framing?.turn ?? turn, aspects);
        const { width, height } = computeBounds(window, live);
        const enlarged = enlargement(window, liveSize, picture.width);
        return { canvas: canvas.id, width, height, pixels: picture.width, enlarged };
      });
  });
}

/** A box 0…1 of the picture, as one of a live area. */
const ofLive = (box: PictureRect, live: PictureRect): LiveRect => ({
  x: (box.x - live.x) / live.width,
  y: (box.y - live.y) / live.height,
  width: box.width / live.width,
  height: box.height / live.height,
});

/** Makes the input from which a framing's path is found; null where no canvas shows a window of it. */
export function followTask(
  work: Work,
  to: FramingToFollow,
  subjects: readonly Subject[],
  wishes: FollowOptions,
): FollowTask | null {
  const { source, rate } = findMaster(work, to.shot);
  const panes = panesOfFraming(work, to, source);
  if (panes.length === 0 || subjects.length === 0) return null;
  const { keyframes, turn } = framingToFollow(work, to);
  const live = to.shot.live ?? source.live;
  const repaired = repairedBox(work, to.shot);
  const [first] = keyframes;
  const plain = turn === 0 && (first?.tilt ?? 0) === 0;
  return {
    ...{ in: to.shot.in, out: to.shot.out, rate: rateValue(source.rate) },
    panes: panes.map(({ canvas, width, height, pixels }) => ({ canvas, width, height, pixels })),
    subjects: subjects.map(({ track }) => ({
      ...track,
      points: track.points.map((point) => ({
        ...point,
        frame: scaleFrames(point.frame, rate, source.rate),
        box: ofLive(repaired(point.box), live),
      })),
    })),
    pins: listPins(work, to),
    // A turned window's seat is turned too: the middle is the same either way.
    wishes: plain ? wishes : { ...wishes, seat: { x: 0.5, y: 0.5 } },
    zoom: first?.zoom ?? 1,
    tilt: first?.tilt ?? 0,
    maxZoom: Math.max(1, wishes.mostEnlarged / Math.max(...panes.map(({ enlarged }) => enlarged))),
  };
}

/** Keyframes that a person set; those of a framing that was never followed are only a beginning. */
export function listPins(work: Work, to: FramingToFollow): Framing['keyframes'] {
  const { keyframes, following } = framingToFollow(work, to);
  return following ? keyframes.filter(({ found }) => !found) : keyframes.length > 1 ? keyframes : [];
}

/** A framing with a path that was found. */
export function applyFollowing(
  work: Work,
  to: FramingToFollow,
  { keyframes, places, doubts, unserved }: FollowResult,
  { subjects, wishes }: { subjects: readonly Subject[]; wishes: FollowOptions },
): Framing {
  const following = { subjects: subjects.map(toFollowedPlace), wishes, places, doubts, unserved };
  return { ...framingToFollow(work, to), fit: false, keyframes, following };
}

/** A framing that keeps in one place what moves most in its shot; null where nothing was seen to move. */
export function placeOnBusyPart(work: Work, to: FramingToFollow, { spans }: Evidence): Framing | null {
  const { source } = findMaster(work, to.shot);
  const range = fileRange(work, to.shot);
  const parts = spans.flatMap(({ in: first, out, busy }) =>
    busy && first < range.out && out > range.in ? [busy] : [],
  );
  if (parts.length === 0) return null;
  const live = to.shot.live ?? source.live;
  const boxes = parts.map((part) => ofLive(repairedBox(work, to.shot)(part), live));
  const mean = (of: (part: LiveRect) => number) =>
    clamp(boxes.reduce((sum, part) => sum + of(part), 0) / boxes.length, 0, 1);
  const focus = { x: mean(({ x, width }) => x + width / 2), y: mean(({ y, height }) => y + height / 2) };
  const framing = ownFraming(framingToFollow(work, to));
  const [first] = framing.keyframes;
  const key = { ...PLAIN_VALUES, ...first, focus, seat: PLAIN_VALUES.seat, frame: to.shot.in, ease: null };
  return { ...framing, fit: false, keyframes: [key] };
}
