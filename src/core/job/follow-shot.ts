import type { Shot } from '../cut/shot';
import { type Evidence, type Track } from '../follow/evidence';
import { type Followed, type FollowPane, type FollowTask } from '../follow/solve';
import { type Subject, subjectAt, subjectsOf } from '../follow/subjects';
import { trackAt } from '../follow/track';
import type { Following, FollowedPlace, Wishes } from '../framing/following';
import { type Framing, PLAIN_VALUES } from '../framing/framing';
import { enlargement } from '../framing/moves';
import { boundsOf, windowOf } from '../framing/window';
import type { Canvas } from '../layout/canvas';
import { framingFor } from '../layout/framing-for';
import type { Source } from '../master/source';
import type { PictureRect } from '../picture/size';
import { shotPanes } from '../render/plan';
import { rateValue, scaledFrames } from '../time/frame-rate';
import type { Owner } from './commands/framing-commands';
import { activeClip, sourceIn, type Work } from './job';

/** The framing that is to follow: of a shot on a track, shared by all canvases or of one by itself. */
export interface FramingToFollow {
  shot: Shot;
  track: string;
  owner: Owner;
}

/** A shot's frames at its master's own rate: what was looked at counts so. */
export function fileRange(work: Work, shot: Shot): { in: number; out: number } {
  const { source, rate } = ratesOf(work, shot);
  return {
    in: scaledFrames(shot.in, source.rate, rate),
    out: Math.max(scaledFrames(shot.in, source.rate, rate) + 1, scaledFrames(shot.out, source.rate, rate)),
  };
}

function ratesOf(work: Work, shot: Shot) {
  const master = work.masters.find(({ id }) => id === shot.master);
  if (!master) throw new RangeError(`the job has no master ${shot.master}`);
  return { source: sourceIn(work, shot.master), rate: master.rate };
}

/** The subjects that were found in a shot, the surest first. */
export const subjectsIn = (work: Work, shot: Shot, evidence: Evidence): Subject[] =>
  subjectsOf(evidence, fileRange(work, shot), rateValue(ratesOf(work, shot).rate));

/** Subjects that a framing follows, as far as they are still found. */
export function followedSubjects(subjects: readonly Subject[], { subjects: places }: Following): Subject[] {
  const found = places.flatMap((place) => subjectAt(subjects, place.frame, place, 0) ?? []);
  return [...new Set(found)];
}

/** Somewhere a subject is, by which it is found again: where it was seen most surely. */
export function placeOf({ track }: Subject): FollowedPlace {
  const best = track.points.reduce((a, b) => (b.confidence > a.confidence ? b : a));
  const { x, y, width, height } = best.box;
  return { frame: best.frame, x: x + width / 2, y: y + height / 2 };
}

/** Where a subject is on screen at a frame of its shot, 0…1 of the upright picture; null where it is not. */
export function boxAt(work: Work, shot: Shot, { track }: Subject, frame: number) {
  const { source, rate } = ratesOf(work, shot);
  return trackAt(track, (frame * rateValue(rate)) / rateValue(source.rate));
}

/** Canvases that show a framing: those of every clip that has a piece of its shot, or the one that it belongs to. */
function canvasesOf({ edit }: Work, { shot, owner }: FramingToFollow): Canvas[] {
  if (owner !== 'shared') return activeClip(edit).canvases.filter(({ id }) => id === owner.canvas);
  const own = ({ detached }: Canvas) => detached.some((framing) => framing.shot === shot.id);
  const clips = edit.clips.filter(({ id, cut }) =>
    id === edit.clip
      ? true
      : cut.some((range) => range.master === shot.master && range.in < shot.out && range.out > shot.in),
  );
  return clips.flatMap(({ canvases }) => canvases.filter((canvas) => !own(canvas)));
}

/** The framing as it is. */
export function framingToFollow({ edit }: Work, { shot, track, owner }: FramingToFollow): Framing {
  const canvas =
    owner === 'shared'
      ? { detached: [] }
      : (activeClip(edit).canvases.find(({ id }) => id === owner.canvas) ?? { detached: [] });
  return framingFor(canvas, edit.framings, shot, track);
}

function panesOfFraming(
  work: Work,
  to: FramingToFollow,
  source: Source,
): (FollowPane & { enlarged: number })[] {
  const { turn, keyframes } = framingToFollow(work, to);
  const tilt = keyframes[0]?.tilt ?? 0;
  return canvasesOf(work, to).flatMap((canvas) => {
    const { panes, liveSize } = shotPanes(canvas, work.edit.framings, to.shot, source);
    const live = liveSize.width / liveSize.height;
    return panes
      .filter(({ track, framing }) => track === to.track && framing !== null)
      .map(({ picture, framing }) => {
        const aspects = { pane: picture.width / picture.height, live };
        const window = windowOf({ ...PLAIN_VALUES, tilt }, framing?.turn ?? turn, aspects);
        const { width, height } = boundsOf(window, live);
        const enlarged = enlargement(window, liveSize, picture.width);
        return { canvas: canvas.id, width, height, pixels: picture.width, enlarged };
      });
  });
}

/** A track with frames at a source's rate, and boxes 0…1 of a shot's live area. */
function inShot(track: Track, live: PictureRect, scale: (frame: number) => number): Track {
  return {
    ...track,
    points: track.points.map(({ frame, box, confidence }) => ({
      frame: scale(frame),
      confidence,
      box: {
        x: (box.x - live.x) / live.width,
        y: (box.y - live.y) / live.height,
        width: box.width / live.width,
        height: box.height / live.height,
      },
    })),
  };
}

/** What the path of a framing is found from; null where no canvas shows a window of it. */
export function followTask(
  work: Work,
  to: FramingToFollow,
  subjects: readonly Subject[],
  wishes: Wishes,
): FollowTask | null {
  const { source, rate } = ratesOf(work, to.shot);
  const panes = panesOfFraming(work, to, source);
  if (panes.length === 0 || subjects.length === 0) return null;
  const { keyframes, turn } = framingToFollow(work, to);
  const live = to.shot.live ?? source.live;
  const [first] = keyframes;
  const plain = turn === 0 && (first?.tilt ?? 0) === 0;
  return {
    ...{ in: to.shot.in, out: to.shot.out, rate: rateValue(source.rate) },
    panes: panes.map(({ canvas, width, height, pixels }) => ({ canvas, width, height, pixels })),
    subjects: subjects.map(({ track }) =>
      inShot(track, live, (frame) => scaledFrames(frame, rate, source.rate)),
    ),
    pins: pinsOf(work, to),
    // A turned window's seat is turned too: the middle is the same either way.
    wishes: plain ? wishes : { ...wishes, seat: { x: 0.5, y: 0.5 } },
    zoom: first?.zoom ?? 1,
    tilt: first?.tilt ?? 0,
    mostZoom: Math.max(1, wishes.mostEnlarged / Math.max(...panes.map(({ enlarged }) => enlarged))),
  };
}

/** Keyframes that a person set; those of a framing that was never followed are only a beginning. */
export function pinsOf(work: Work, to: FramingToFollow): Framing['keyframes'] {
  const { keyframes, following } = framingToFollow(work, to);
  return following ? keyframes.filter(({ found }) => !found) : keyframes.length > 1 ? keyframes : [];
}

/** A framing with a path that was found. */
export function framingFollowed(
  work: Work,
  to: FramingToFollow,
  { keyframes, doubts, unserved }: Followed,
  { subjects, wishes }: { subjects: readonly Subject[]; wishes: Wishes },
): Framing {
  const following = { subjects: subjects.map(placeOf), wishes, doubts, unserved };
  return { ...framingToFollow(work, to), fit: false, keyframes, following };
}

/** A framing that keeps in one place what moves most in its shot; null where nothing was seen to move. */
export function framingOnBusy(work: Work, to: FramingToFollow, { spans }: Evidence): Framing | null {
  const { source } = ratesOf(work, to.shot);
  const range = fileRange(work, to.shot);
  const parts = spans.flatMap(({ in: first, out, busy }) =>
    busy && first < range.out && out > range.in ? [busy] : [],
  );
  if (parts.length === 0) return null;
  const live = to.shot.live ?? source.live;
  const mean = (of: (part: PictureRect) => number) =>
    parts.reduce((sum, part) => sum + of(part), 0) / parts.length;
  const held = (value: number) => Math.min(1, Math.max(0, value));
  const focus = {
    x: held((mean(({ x, width }) => x + width / 2) - live.x) / live.width),
    y: held((mean(({ y, height }) => y + height / 2) - live.y) / live.height),
  };
  const { following: _following, ...framing } = framingToFollow(work, to);
  const [first] = framing.keyframes;
  const key = { ...PLAIN_VALUES, ...first, focus, seat: PLAIN_VALUES.seat, frame: to.shot.in, ease: null };
  return { ...framing, fit: false, keyframes: [key] };
}
