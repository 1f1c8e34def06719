import { splitEase } from './easing';
import { clamp, type LiveRect, type Size } from '../picture/size';
import {
  type Framing,
  type Keyframe,
  findKeyframe,
  MIN_ZOOM,
  MAX_TILT,
  MAX_ZOOM,
  type Point,
  type Values,
} from './framing';
import {
  type Aspects,
  computeBounds,
  computeCentre,
  toDirection,
  computeMinZoom,
  type Window,
  toWindow,
} from './window';

/**
 * Keyframes that a change is for: all of a framing's, or the one at a frame, which is made where there is
 * none.
 */
export type KeyframeScope = 'shot' | number;

/**
 * A framing with a change of its values. What is not a number or lies outside its range is held inside. A keyframe
 * that a person put elsewhere is theirs; one that was found stays so when all of them are zoomed, tilted or seated.
 */
function changeKeyframes(
  framing: Framing,
  scope: KeyframeScope,
  change: (values: Values) => Values,
  places = false,
): Framing {
  const of = (key: Keyframe): Keyframe => {
    const next = { ...key, ...heldValues(change(key)) };
    if (places) delete next.found;
    return next;
  };
  if (scope === 'shot') return { ...framing, keyframes: framing.keyframes.map(of) };
  return withKeyframe(framing, of(findKeyframe(framing.keyframes, scope)));
}

/**
 * A framing with a keyframe in the place of the one at its frame, or besides those that there are. One between two
 * others divides the curve between them, so that the motion around it stays as it was.
 */
export function withKeyframe(framing: Framing, key: Keyframe): Framing {
  const { keyframes } = framing;
  const others = keyframes.filter((keyframe) => keyframe.frame !== key.frame);
  if (others.length < keyframes.length) return { ...framing, keyframes: inOrder([...others, key]) };
  const next = others.find(({ frame }) => frame > key.frame);
  const before = others.findLast(({ frame }) => frame < key.frame);
  if (!before || !next) return { ...framing, keyframes: inOrder([...others, key]) };
  const [ease, rest] = splitEase(before.ease, (key.frame - before.frame) / (next.frame - before.frame));
  const divided = others.map((one) => (one === before ? { ...one, ease } : one));
  return { ...framing, keyframes: inOrder([...divided, { ...key, ease: rest }]) };
}

const inOrder = (keyframes: readonly Keyframe[]): Keyframe[] =>
  keyframes.toSorted((a, b) => a.frame - b.frame);

function heldValues({ focus, seat, zoom, tilt }: Values): Values {
  const unit = ({ x, y }: Point): Point => ({ x: clamp(x, 0, 1), y: clamp(y, 0, 1) });
  return {
    focus: unit(focus),
    seat: unit(seat),
    zoom: clamp(zoom, MIN_ZOOM, MAX_ZOOM),
    tilt: clamp(tilt, -MAX_TILT, MAX_TILT),
  };
}

/** Below this share of the live area a window has no room along an axis. */
const NO_ROOM = 1e-6;

/**
 * The focus that moves a window by a distance and stops at the edges: it starts from where the window really is. An
 * axis in which the window has no room, or that is not moved, keeps the focus that other canvases share.
 */
function movedFocus(values: Values, by: Point, turn: Framing['turn'], aspects: Aspects): Point {
  const window = toWindow(values, turn, aspects);
  const bounds = computeBounds(window, aspects.live);
  const seat = toSeat(window, values.seat, aspects.live);
  const along = (axis: 'x' | 'y', size: 'width' | 'height'): number => {
    const room = 1 - bounds[size];
    if (by[axis] === 0 || room < NO_ROOM) return values.focus[axis];
    const shift = clamp(bounds[axis] + by[axis], 0, room) - bounds[axis];
    return seat[axis] + shift;
  };
  return { x: along('x', 'width'), y: along('y', 'height') };
}

/** Where in the live area a window's seat lies. @param live its width over height. */
function toSeat(window: Window, seat: Point, live: number): Point {
  const { cos, sin } = toDirection(window.angle);
  const centre = computeCentre(window);
  const [across, down] = [(seat.x - 0.5) * window.width * live, (seat.y - 0.5) * window.height];
  return { x: centre.x + (across * cos - down * sin) / live, y: centre.y + across * sin + down * cos };
}

/** A framing moved; it stops at the picture's edge. @param by distance in 0…1 of the live area. */
export function moveWindow(framing: Framing, scope: KeyframeScope, by: Point, aspects: Aspects): Framing {
  const move = (values: Values) => ({ ...values, focus: movedFocus(values, by, framing.turn, aspects) });
  return changeKeyframes(framing, scope, move, true);
}

/**
 * A framing zoomed; `pin` stays where it is in the window.
 *
 * @param factor over 1 tightens; the result is held between the least and the most zoom.
 * @param pin a place in the live area.
 */
export function zoomFraming(
  framing: Framing,
  scope: KeyframeScope,
  factor: number,
  pin: Point,
  aspects: Aspects,
): Framing {
  return changeKeyframes(framing, scope, (values) => {
    const least = computeMinZoom(aspects, framing.turn, values.tilt);
    const before = Math.max(values.zoom, least);
    const zoom = clamp(before * factor, MIN_ZOOM, MAX_ZOOM);
    const real = before / Math.max(zoom, least);
    const window = toWindow(values, framing.turn, aspects);
    const spot = toSeat(window, values.seat, aspects.live);
    // The focus keeps its seat, so it moves toward the pin by what the window shrank.
    const focus = { x: pin.x + (spot.x - pin.x) * real, y: pin.y + (spot.y - pin.y) * real };
    return { ...values, zoom, focus };
  });
}

/** A framing whose window shows a point of the live area at its seat. */
export function moveFocus(framing: Framing, scope: KeyframeScope, focus: Point): Framing {
  return changeKeyframes(framing, scope, (values) => ({ ...values, focus }), true);
}

/** A framing whose focus sits at another place in the window. */
export function moveAnchor(framing: Framing, scope: KeyframeScope, seat: Point): Framing {
  return changeKeyframes(framing, scope, (values) => ({ ...values, seat }));
}

/** A framing tilted so that it has a tilt at a frame; other keyframes change by as much. @param tilt degrees. */
export function tiltFraming(framing: Framing, scope: KeyframeScope, frame: number, tilt: number): Framing {
  const by = tilt - findKeyframe(framing.keyframes, frame).tilt;
  return changeKeyframes(framing, scope, (values) => ({ ...values, tilt: values.tilt + by }));
}

/** A framing with a quarter turn more, clockwise on the picture. */
export function turnFraming(framing: Framing): Framing {
  return { ...framing, turn: ((framing.turn + 90) % 360) as Framing['turn'] };
}

/**
 * The tilt that makes a line drawn on the picture level, or upright where it is nearer to that.
 * @param line its extent in square pixels. @returns degrees, −45…45.
 */
export function computeTilt(line: Point): number {
  const angle = (Math.atan2(line.y, line.x) * 180) / Math.PI;
  const tilt = angle - Math.round(angle / 90) * 90;
  return clamp(tilt, -MAX_TILT, MAX_TILT);
}

/** Where a window comes to lie when it is moved: its middle on the middle or a third of the picture. */
const SNAPS = [1 / 3, 1 / 2, 2 / 3];

/**
 * A distance that a window is moved by, changed so that it snaps: its middle to the middle or the thirds of the
 * picture, its sides to the picture's edges.
 *
 * @param by 0…1 of the live area. @param reach how near is near enough, 0…1 across and down.
 */
export function snapMove(window: Window, by: Point, reach: Point, live: number): Point {
  const bounds = computeBounds(window, live);
  const along = (axis: 'x' | 'y', size: 'width' | 'height'): number => {
    const edge = bounds[axis] + by[axis];
    const rests = [...SNAPS.map((snap) => snap - bounds[size] / 2), 0, 1 - bounds[size]];
    const near = rests
      .filter((rest) => rest >= -NO_ROOM && rest <= 1 - bounds[size] + NO_ROOM)
      .sort((a, b) => Math.abs(a - edge) - Math.abs(b - edge))[0];
    return by[axis] !== 0 && near !== undefined && Math.abs(near - edge) < reach[axis]
      ? near - bounds[axis]
      : by[axis];
  };
  return { x: along('x', 'width'), y: along('y', 'height') };
}

/** How far a window may still move before it meets the picture's edge, in picture pixels. */
export interface Margin {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** @param window 0…1 of the live area. @param live its size in square pixels. */
export function computeMargin(window: Window, live: Size): Margin {
  const bounds: LiveRect = computeBounds(window, live.width / live.height);
  return {
    left: bounds.x * live.width,
    right: (1 - bounds.x - bounds.width) * live.width,
    top: bounds.y * live.height,
    bottom: (1 - bounds.y - bounds.height) * live.height,
  };
}

/**
 * Canvas pixels per master pixel: 1.778 when 1920×1080 fills 1080×1920; below 1 the master has pixels to spare.
 *
 * @param window 0…1 of the live area. @param live its size in pixels. @param paneWidth width in the canvas, in pixels.
 */
export function enlargement(window: LiveRect, live: Size, paneWidth: number): number {
  return paneWidth / (window.width * live.width);
}

/**
 * Pixels that a canvas may have across before the master is enlarged in it, by the same window.
 * @param enlarged canvas pixels per master pixel as it is now. @param canvasWidth in pixels. @returns even.
 */
export function sharpWidth(enlarged: number, canvasWidth: number): number {
  return Math.floor(canvasWidth / enlarged / 2) * 2;
}
