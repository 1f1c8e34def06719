import type { Ease } from '../framing/easing';
import type { Doubt, SeenPlace, Stillness, FollowOptions } from '../framing/following';
import { type Keyframe, findKeyframe, MIN_ZOOM, MAX_ZOOM, type Point } from '../framing/framing';
import { clamp, type Rect } from '../picture/size';
import { axisPath, type AxisTask } from './axis-path';
import { sampleStep } from './evidence';
import { computeLead } from './lead';
import type { SolveProgram } from './linear-program';
import { type PathPoint, simplifyPath } from './simplify';
import { type WantedBox, findWantedBoxes } from './subject-boxes';
import type { LiveTrack } from './track';

/** A pane that shows a shot's framing: its window at zoom 1, 0…1 of the live area, and its width in canvas pixels. */
export interface FollowPane {
  canvas: string;
  width: number;
  height: number;
  pixels: number;
}

/** Input from which one shot's path is found. */
export interface FollowTask {
  /** Its frames, half-open, at a rate in frames a second. */
  in: number;
  out: number;
  rate: number;
  panes: readonly FollowPane[];
  /** The preferred one first; frames at that rate, boxes 0…1 of the live area. */
  subjects: readonly LiveTrack[];
  /** Keyframes that a person set: the path goes through them. */
  pins: readonly Keyframe[];
  wishes: FollowOptions;
  /** The zoom that is held, where it is, and the tilt. */
  zoom: number;
  tilt: number;
  /** The most zoom that the wish against softness allows. */
  maxZoom: number;
}

/** A path that was found. */
export interface FollowResult {
  keyframes: Keyframe[];
  doubts: Doubt[];
  /** Canvases that the path cannot serve: they need a framing by themselves. */
  unserved: string[];
  /** Where the subjects are, about once a second; 0…1 of the live area. */
  places: SeenPlace[];
}

/** How a way of moving weighs: the part of the window that holds the subject, and the price of being off its seat. */
const STILL: Record<Stillness, { inner: number; pull: number; prices: AxisTask['prices'] }> = {
  place: { inner: 0.96, pull: 0.002, prices: [10, 1, 300] },
  calm: { inner: 0.84, pull: 0.002, prices: [10, 1, 3000] },
  near: { inner: 0.7, pull: 0.1, prices: [0.3, 1, 1000] },
  close: { inner: 0.5, pull: 1, prices: [0.1, 1, 300] },
};
/** Where people and faces sit in the height of a window, so that there is head room. */
const HEAD_ROOM_SEAT = 0.42;
/** The zoom follows a size that changes by more than this share either way. */
const SIZE_BAND = 1.2;
/** Cost of a unit of zoom away from the wish. */
const ZOOM_PULL = 0.05;
/** The path may be this many canvas pixels off what was solved, of the narrowest canvas. */
const PATH_TOLERANCE = 6;
/** Of the zoom, as a share. */
const ZOOM_TOLERANCE = 0.01;
/** Below this a sighting is not sure. */
const SURE = 0.3;
/** A doubt that is shorter than this, in seconds, is none. */
const MIN_DOUBT = 0.4;
/** A canvas is not served where the subjects do not fit together in more than this share of the shot, or the one does not. */
const TOO_OFTEN = 0.05;
const MOSTLY = 0.5;
/** This much of a window, past its edge, is not outside yet. */
const EDGE = 0.01;

interface Room {
  width: number;
  height: number;
}

const narrowest = (panes: readonly FollowPane[]): Room => ({
  width: Math.min(...panes.map(({ width }) => width)),
  height: Math.min(...panes.map(({ height }) => height)),
});

/** The panes that a path is found for, what has to stay in view of them, and the canvases that it cannot serve. */
function planServedPanes(
  task: FollowTask,
  frames: readonly number[],
): { panes: readonly FollowPane[]; wanted: WantedBox[]; unserved: string[] } {
  const { inner } = STILL[task.wishes.still];
  const reach = 2 * sampleStep(task.rate);
  const zoom = task.wishes.fills === null ? task.zoom : MIN_ZOOM;
  const isWanted = ({ width, height }: Room) =>
    findWantedBoxes(
      task.subjects,
      frames,
      { width: (width * inner) / zoom, height: (height * inner) / zoom },
      reach,
    );
  const often = (pane: FollowPane, fails: (wanted: WantedBox) => boolean, share: number) =>
    isWanted(pane).filter(fails).length > share * frames.length;
  // One that is too narrow for all of the subjects would hold the others to a part of them.
  const together = task.panes.filter((pane) => !often(pane, ({ apart }) => apart, TOO_OFTEN));
  const panes = together.length > 0 ? together : task.panes;
  const tooWide = (pane: FollowPane) =>
    often(pane, ({ box }) => box !== null && box.width > pane.width / zoom, MOSTLY);
  const unserved = task.panes.filter((pane) => !panes.includes(pane) || tooWide(pane));
  return { panes, wanted: isWanted(narrowest(panes)), unserved: unserved.map(({ canvas }) => canvas) };
}

/**
 * Finds the keyframes that keep followed subjects in view. Every canvas that shares a framing shows at least what the
 * narrowest shows, so the path of that serves all.
 *
 * @throws RangeError without a pane or a subject.
 */
export function followShot(task: FollowTask, solve: SolveProgram): FollowResult {
  if (task.panes.length === 0 || task.subjects.length === 0)
    throw new RangeError('there is nothing to follow, or nothing to follow it with');
  const frames = listSteps(task);
  const { panes, wanted, unserved } = planServedPanes(task, frames);
  const room = narrowest(panes);
  const zooms = zoomPath(task, frames, wanted, room, solve);
  const size = {
    width: zooms.map((zoom) => room.width / zoom),
    height: zooms.map((zoom) => room.height / zoom),
  };
  const seats = chooseSeats(task, frames, wanted, size.width);
  const x = middles('x', task, { frames, wanted, size: size.width, seats, solve });
  const y = middles('y', task, { frames, wanted, size: size.height, seats, solve });
  const places = frames.map((frame, i): Place => ({
    ...{ frame, x: x[i] as number, y: y[i] as number, zoom: zooms[i] as number },
    seat: seats[i] as Point,
  }));
  const pixels = Math.max(...panes.map((pane) => pane.pixels / pane.width));
  return {
    keyframes: toKeyframes(task, places, room, PATH_TOLERANCE / pixels),
    doubts: findDoubts(task, places, wanted, room),
    unserved,
    places: listPlaces(task, frames, wanted),
  };
}

/** The frames at which the path is solved: even steps from the shot's first frame to its last, or just past that. */
function listSteps({ in: first, out, rate }: FollowTask): number[] {
  const step = sampleStep(rate);
  return Array.from({ length: Math.ceil((out - 1 - first) / step) + 1 }, (_, i) => first + i * step);
}

const nearestStep = (frames: readonly number[], frame: number, rate: number): number =>
  clamp(Math.round((frame - (frames[0] as number)) / sampleStep(rate)), 0, frames.length - 1);

/** A solved place of the narrowest window: its middle, 0…1 of the live area. */
interface Place {
  frame: number;
  x: number;
  y: number;
  zoom: number;
  seat: Point;
}

function zoomPath(
  { wishes, pins, zoom, maxZoom, rate }: FollowTask,
  frames: readonly number[],
  wanted: readonly WantedBox[],
  room: Room,
  solve: SolveProgram,
): number[] {
  const { fills } = wishes;
  if (fills === null) {
    if (pins.length === 0) return frames.map(() => zoom);
    return frames.map((frame) => findKeyframe(pins, frame).zoom);
  }
  const most = clamp(Math.max(maxZoom, ...pins.map((pin) => pin.zoom)), MIN_ZOOM, MAX_ZOOM);
  const span = Math.max(1e-6, most - MIN_ZOOM);
  const share = (value: number) => clamp((value - MIN_ZOOM) / span, 0, 1);
  const { inner, prices } = STILL[wishes.still];
  const best = wanted.map(({ box }) =>
    box ? Math.min((fills * room.height) / box.height, (inner * room.width) / box.width) : null,
  );
  const task: AxisTask = {
    size: frames.map(() => 0),
    inner: 1,
    keep: best.map((value) =>
      value === null ? null : { from: share(value / SIZE_BAND), to: share(value * SIZE_BAND) },
    ),
    target: best.map((value) => (value === null ? null : share(value))),
    pull: ZOOM_PULL,
    prices,
    pins: pins.map((pin) => ({ step: nearestStep(frames, pin.frame, rate), middle: share(pin.zoom) })),
  };
  return axisPath(task, solve).map((value) => MIN_ZOOM + value * span);
}

function chooseSeats(
  { wishes, rate, subjects }: FollowTask,
  frames: readonly number[],
  wanted: readonly WantedBox[],
  width: readonly number[],
): Point[] {
  const people = subjects[0]?.kind === 'person' || subjects[0]?.kind === 'face';
  const { seat, lead } = wishes;
  if (seat) return frames.map(() => seat);
  const places = wanted.map(({ anchor }) => anchor?.x ?? null);
  const ways = computeLead(places, width, rate / sampleStep(rate));
  return ways.map((way) => ({ x: 0.5 - lead * way, y: people ? HEAD_ROOM_SEAT : 0.5 }));
}

/** Where the subjects are, at the first step of each second and at the last where they are seen. */
function listPlaces(
  { rate, out }: FollowTask,
  frames: readonly number[],
  wanted: readonly WantedBox[],
): SeenPlace[] {
  const every = Math.max(1, Math.round(rate / sampleStep(rate)));
  const last = wanted.findLastIndex(({ anchor }) => anchor !== null);
  return wanted.flatMap(({ anchor }, i): SeenPlace[] => {
    const frame = Math.min(frames[i] as number, out - 1);
    return anchor && (i % every === 0 || i === last) ? [{ frame, ...anchor }] : [];
  });
}

interface AxisInput {
  frames: readonly number[];
  wanted: readonly WantedBox[];
  size: readonly number[];
  seats: readonly Point[];
  solve: SolveProgram;
}

/** The window's middle along one axis at each step. */
function middles(
  axis: 'x' | 'y',
  task: FollowTask,
  { frames, wanted, size, seats, solve }: AxisInput,
): number[] {
  const { inner, pull, prices } = STILL[task.wishes.still];
  const extent = axis === 'x' ? 'width' : 'height';
  const keep = wanted.map(({ box }, i) => {
    if (!box) return null;
    const from = box[axis];
    // Of who is too tall for the window the upper part is held.
    const most = (size[i] as number) * inner;
    return { from, to: from + (axis === 'y' ? Math.min(box[extent], most) : box[extent]) };
  });
  const target = wanted.map(({ anchor }, i) =>
    anchor ? anchor[axis] + (0.5 - (seats[i] as Point)[axis]) * (size[i] as number) : null,
  );
  const pins = task.pins.map((pin) => {
    const step = nearestStep(frames, pin.frame, task.rate);
    return { step, middle: pin.focus[axis] + (0.5 - pin.seat[axis]) * (size[step] as number) };
  });
  return axisPath({ size, keep, inner, target, pull, prices, pins }, solve);
}

/** The keyframes of a path: the pins as they are, and few between them. */
function toKeyframes(task: FollowTask, places: readonly Place[], room: Room, tolerance: number): Keyframe[] {
  const { pins, tilt, rate } = task;
  const near = (frame: number) =>
    pins.some((pin) => pin.frame !== frame && Math.abs(pin.frame - frame) < sampleStep(rate));
  const findPin = (frame: number) => pins.find((pin) => pin.frame === frame);
  const ended = extendPlaces(places, task.out - 1);
  const found = ended.filter(({ frame }) => !near(frame) && !findPin(frame)).map(toPoint);
  const points = [
    ...found,
    ...pins.map((pin) => ({ ...toPoint(toPlace(pin, room)), pin: { ease: pin.ease } })),
  ].sort((a, b) => a.frame - b.frame);
  const kept = simplifyPath(points, [tolerance, tolerance, ZOOM_TOLERANCE]);
  return kept.map(({ point, ease }): Keyframe => findPin(point.frame) ?? toKeyframe(point, ease));

  function toPoint({ frame, x, y, zoom, seat }: Place): PathPoint & { seat: Point } {
    return { frame, values: [x, y, zoom], seat };
  }

  function toKeyframe(point: PathPoint, ease: Ease): Keyframe {
    const [x, y, zoom] = point.values as [number, number, number];
    const { seat } = ended.find((place) => place.frame === point.frame) as Place;
    const focus = {
      x: clamp(x + ((seat.x - 0.5) * room.width) / zoom, 0, 1),
      y: clamp(y + ((seat.y - 0.5) * room.height) / zoom, 0, 1),
    };
    return { frame: point.frame, focus, seat, zoom, tilt, ease, found: true };
  }
}

/** Places of which the last is at a shot's last frame: the steps may end past that. */
function extendPlaces(places: readonly Place[], last: number): Place[] {
  const inside = places.filter(({ frame }) => frame <= last);
  const [before, after] = [inside[inside.length - 1], places[inside.length]];
  if (!before || !after || before.frame === last) return inside;
  const u = (last - before.frame) / (after.frame - before.frame);
  const mix = (a: number, b: number) => a + (b - a) * u;
  const end = { x: mix(before.x, after.x), y: mix(before.y, after.y), zoom: mix(before.zoom, after.zoom) };
  return [...inside, { ...end, frame: last, seat: before.seat }];
}

/** Where the narrowest window lies at a keyframe. */
function toPlace({ frame, focus, seat, zoom }: Keyframe, room: Room): Place {
  const [width, height] = [room.width / zoom, room.height / zoom];
  const clampMiddle = (middle: number, size: number) =>
    size >= 1 ? 0.5 : clamp(middle, size / 2, 1 - size / 2);
  return {
    ...{ frame, zoom, seat },
    x: clampMiddle(focus.x + (0.5 - seat.x) * width, width),
    y: clampMiddle(focus.y + (0.5 - seat.y) * height, height),
  };
}

function findDoubts(
  { rate, out }: FollowTask,
  places: readonly Place[],
  wanted: readonly WantedBox[],
  room: Room,
): Doubt[] {
  const why = wanted.map(({ box, confidence, apart }, i): Doubt['why'] | null => {
    const { x, y, zoom } = places[i] as Place;
    if (!box || confidence === 0) return 'unseen';
    if (apart) return 'apart';
    if (isOutside(box, { x, y }, { width: room.width / zoom, height: room.height / zoom })) return 'outside';
    return confidence < SURE ? 'unsure' : null;
  });
  const doubts: Doubt[] = [];
  for (let i = 0; i < why.length;) {
    let end = i;
    while (end < why.length && why[end] === why[i]) end += 1;
    const doubt = { in: (places[i] as Place).frame, out: Math.min(out, places[end]?.frame ?? out) };
    const reason = why[i];
    if (reason && doubt.out - doubt.in >= MIN_DOUBT * rate) doubts.push({ ...doubt, why: reason });
    i = end;
  }
  return doubts;
}

/** Tells whether a box that would fit into a window reaches outside it. */
function isOutside(box: Rect, middle: Point, { width, height }: Room): boolean {
  const past = (from: number, extent: number, centre: number, size: number) =>
    extent <= size && (from < centre - size * (0.5 + EDGE) || from + extent > centre + size * (0.5 + EDGE));
  return past(box.x, box.width, middle.x, width) || past(box.y, box.height, middle.y, height);
}
