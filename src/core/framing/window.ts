import { toPicture } from '../picture/live-area';
import type { Rotation } from '../picture/orientation';
import { clamp, type LiveRect, type PictureRect, type Rect, type RectIn, WHOLE_RECT } from '../picture/size';
import { type Framing, findKeyframe, type Point, type Values } from './framing';

/**
 * The piece of the live area that a pane shows: a rectangle, 0…1 of the live area as {@link LiveRect}s are, that is then
 * turned about its centre by `angle` degrees clockwise, measured in square pixels. y runs down.
 */
export interface Window extends LiveRect {
  angle: number;
}

/** The same piece, 0…1 of the upright picture. */
export interface PictureWindow extends PictureRect {
  angle: number;
}

/** Ratios of the pane and of the live area, width over height. */
export interface Aspects {
  pane: number;
  live: number;
}

/** The whole live area, or the whole picture. */
export const WHOLE = { ...WHOLE_RECT, angle: 0 };

const RADIANS = Math.PI / 180;

/** Cosine and sine of an angle in degrees; quarter turns are exact. */
export function toDirection(angle: number): { cos: number; sin: number } {
  if (angle % 90 === 0) {
    const quarter = (((angle / 90) % 4) + 4) % 4;
    return { cos: [1, 0, -1, 0][quarter] as number, sin: [0, 1, 0, -1][quarter] as number };
  }
  return { cos: Math.cos(angle * RADIANS), sin: Math.sin(angle * RADIANS) };
}

/**
 * Height of the largest rectangle of a ratio that lies inside the live area at an angle, in live-area heights. Its
 * bounding box, w|cos| + h|sin| by w|sin| + h|cos|, touches the nearer pair of edges.
 *
 * @param angle degrees.
 */
export function widestHeight({ pane, live }: Aspects, angle: number): number {
  const { cos, sin } = toDirection(angle);
  const [c, s] = [Math.abs(cos), Math.abs(sin)];
  return Math.min(live / (pane * c + s), 1 / (pane * s + c));
}

/** The least zoom at which no corner of a tilted window leaves the live area: 1 when it is not tilted. */
export function computeMinZoom(aspects: Aspects, turn: Rotation, tilt: number): number {
  return tilt === 0 ? 1 : Math.max(1, widestHeight(aspects, turn) / widestHeight(aspects, turn + tilt));
}

/**
 * The window of known values: the largest rectangle of the pane's ratio, divided by the zoom (or by the least that
 * its tilt needs), placed so that the focus is at its seat, then held inside the live area.
 */
export function toWindow({ focus, seat, zoom, tilt }: Values, turn: Rotation, aspects: Aspects): Window {
  const { pane, live } = aspects;
  const angle = turn + tilt;
  // Here lengths are in live-area heights, so that angles are true.
  const height = widestHeight(aspects, turn) / Math.max(zoom, computeMinZoom(aspects, turn, tilt));
  const width = height * pane;
  const { cos, sin } = toDirection(angle);
  const [across, down] = [(seat.x - 0.5) * width, (seat.y - 0.5) * height];
  const halfX = (width * Math.abs(cos) + height * Math.abs(sin)) / 2;
  const halfY = (width * Math.abs(sin) + height * Math.abs(cos)) / 2;
  const x = keptWithin(focus.x * live - (across * cos - down * sin), halfX, live);
  const y = keptWithin(focus.y - (across * sin + down * cos), halfY, 1);
  return { x: (x - width / 2) / live, y: y - height / 2, width: width / live, height, angle };
}

/** A centre that keeps half an extent from both ends; the middle where there is no room, whatever was rounded. */
const keptWithin = (middle: number, half: number, length: number): number =>
  half * 2 >= length ? length / 2 : clamp(middle, half, length - half);

/** The window of a framing at a frame, also of one that shows the whole picture. */
export function computeWindow(
  { keyframes, turn }: Pick<Framing, 'keyframes' | 'turn'>,
  frame: number,
  aspects: Aspects,
): Window {
  return toWindow(findKeyframe(keyframes, frame), turn, aspects);
}

/** The four corners of a window, 0…1 of the live area, clockwise from its own top left. */
export function computeCorners(window: Rect & { angle: number }, live: number): [Point, Point, Point, Point] {
  const { cos, sin } = toDirection(window.angle);
  const centre = computeCentre(window);
  const corner = (across: number, down: number): Point => {
    const [w, h] = [across * window.width * live, down * window.height];
    return { x: centre.x + (w * cos - h * sin) / live, y: centre.y + w * sin + h * cos };
  };
  return [corner(-0.5, -0.5), corner(0.5, -0.5), corner(0.5, 0.5), corner(-0.5, 0.5)];
}

/** The middle of a window, 0…1 of the live area. */
export function computeCentre({ x, y, width, height }: Rect): Point {
  return { x: x + width / 2, y: y + height / 2 };
}

/** The smallest upright rectangle around a window, 0…1 of the live area. @param live its width over height. */
export function computeBounds<Space extends string>(
  window: RectIn<Space> & { angle: number },
  live: number,
): RectIn<Space> {
  if (window.angle % 180 === 0) return window;
  const { cos, sin } = toDirection(window.angle);
  const [c, s] = [Math.abs(cos), Math.abs(sin)];
  const centre = computeCentre(window);
  const width = window.width * c + (window.height * s) / live;
  const height = window.width * live * s + window.height * c;
  return { x: centre.x - width / 2, y: centre.y - height / 2, width, height };
}

/** A window as the piece of the whole picture that it is. @param area the live area, 0…1 of the picture. */
export function toPictureWindow(window: Window, area: PictureRect): PictureWindow {
  return { ...toPicture(window, area), angle: window.angle };
}
