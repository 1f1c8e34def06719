import { z } from 'zod';
import { boundedNumber, frameIndex } from '../figures/bounded';
import { rotationSchema } from '../picture/orientation';
import { easeSchema, applyEase } from './easing';
import { followingSchema, type SeenPlace } from './following';

const unit = boundedNumber(0, 1);
/** A place in the live area, 0…1 across and down, or in a window for a seat. */
const pointSchema = z.object({ x: unit, y: unit });
export type Point = z.infer<typeof pointSchema>;

/** The widest and the tightest window: 1 is the widest with no bars. */
export const MIN_ZOOM = 1;
export const MAX_ZOOM = 8;
/** The most that a window is tilted either way, in degrees. */
export const MAX_TILT = 45;

/** A framing's values at one moment. */
const valuesSchema = z.object({
  focus: pointSchema,
  seat: pointSchema,
  zoom: boundedNumber(MIN_ZOOM, MAX_ZOOM),
  /** Degrees that the window is tilted clockwise on the picture. */
  tilt: boundedNumber(-MAX_TILT, MAX_TILT),
});
export type Values = z.infer<typeof valuesSchema>;

/** Values pinned to a frame of the master, and the curve from there to the next keyframe. */
const keyframeSchema = valuesSchema.extend({
  frame: frameIndex(),
  ease: easeSchema,
  /** Following found it, and may put another in its place; one that a person set or moved is a pin. */
  found: z.literal(true).optional(),
});
export type Keyframe = z.infer<typeof keyframeSchema>;

/** Where the window lies over one shot's time, on one track. */
export const framingSchema = z.object({
  shot: z.string(),
  track: z.string(),
  /** Quarter turns of the window clockwise on the picture, in degrees. */
  turn: rotationSchema,
  /** The whole picture is shown instead of a window, with bars where it does not reach. */
  fit: z.boolean(),
  /** In the order of their frames. */
  keyframes: z.array(keyframeSchema).min(1),
  /** Options that it was found by, where it was. */
  following: followingSchema.optional(),
});
export type Framing = z.infer<typeof framingSchema>;

const MIDDLE: Point = { x: 0.5, y: 0.5 };
/** The values of a framing that nobody has touched: the middle of the picture, as wide as fills. */
export const PLAIN_VALUES: Values = { focus: MIDDLE, seat: MIDDLE, zoom: MIN_ZOOM, tilt: 0 };

/**
 * Where in the live area the subject of a framing is at a frame, 0…1: what is followed, where that is known, else what a
 * person set the focus on.
 */
export function findSubjectPoint(
  { keyframes, subject = [] }: Pick<Framing, 'keyframes'> & { subject?: readonly SeenPlace[] | undefined },
  frame: number,
): Point {
  const after = subject.findIndex((place) => place.frame >= frame);
  const [before, next] = [subject[after < 0 ? subject.length - 1 : after - 1], subject[after]];
  if (!before || !next) return before ?? next ?? findKeyframe(keyframes, frame).focus;
  return mixPoints(before, next, (frame - before.frame) / (next.frame - before.frame));
}

/** A framing as it is drawn, without how it was found: two that are drawn alike look alike. */
export function toDrawnFraming(framing: Framing): Framing {
  const { following, ...drawn } = framing;
  if (!following && !framing.keyframes.some(({ found }) => found)) return framing;
  return { ...drawn, keyframes: framing.keyframes.map(({ found: _found, ...key }) => key) };
}

/** The framing of a shot that nobody has touched. */
export function plainFraming(shot: string, track: string, frame: number): Framing {
  return { shot, track, turn: 0, fit: false, keyframes: [{ ...PLAIN_VALUES, frame, ease: null }] };
}

const mix = (a: number, b: number, u: number): number => a + (b - a) * u;
const mixPoints = (a: Point, b: Point, u: number): Point => ({ x: mix(a.x, b.x, u), y: mix(a.y, b.y, u) });

/** Values a share of the way from one keyframe's to another's. @param u 0…1. */
function mixValues(a: Values, b: Values, u: number): Values {
  return {
    focus: mixPoints(a.focus, b.focus, u),
    seat: mixPoints(a.seat, b.seat, u),
    zoom: mix(a.zoom, b.zoom, u),
    tilt: mix(a.tilt, b.tilt, u),
  };
}

/** Place of the last keyframe at or before a frame; −1 before the first. */
export function findKeyframeBefore(keyframes: readonly Keyframe[], frame: number): number {
  let [low, high] = [0, keyframes.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((keyframes[middle] as Keyframe).frame <= frame) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/**
 * A framing's values at a frame: those of the nearest keyframe outside the keyframes, along the curve between two.
 * @throws RangeError for a framing without keyframes.
 */
export function findKeyframe(keyframes: readonly Keyframe[], frame: number): Keyframe {
  const index = findKeyframeBefore(keyframes, frame);
  const before = keyframes[index];
  const next = keyframes[index + 1];
  if (!before || !next) {
    const only = before ?? next;
    if (!only) throw new RangeError('a framing has at least one keyframe');
    const { found: _found, ...values } = only;
    return { ...values, frame };
  }
  const u = applyEase(before.ease, (frame - before.frame) / (next.frame - before.frame));
  return { ...mixValues(before, next, u), frame, ease: before.ease };
}
