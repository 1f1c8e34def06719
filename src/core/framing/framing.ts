import { z } from 'zod';
import { clamp, type Rect } from '../picture/size';

const unit = z.number().min(0).max(1);
/** A place in the live area, 0…1 across and down, or in a window for a seat. */
export const pointSchema = z.object({ x: unit, y: unit });
export type Point = z.infer<typeof pointSchema>;

/** The widest and the tightest window: 1 is the widest with no bars. */
export const LEAST_ZOOM = 1;
export const MOST_ZOOM = 8;

/** A framing's values at one frame of the master. Between keyframes values change linearly. */
export const keyframeSchema = z.object({
  frame: z.number().int().nonnegative(),
  focus: pointSchema,
  seat: pointSchema,
  zoom: z.number().min(LEAST_ZOOM).max(MOST_ZOOM),
});
export type Keyframe = z.infer<typeof keyframeSchema>;

/** Where the window lies over one shot's time, on one track. Keyframes in the order of their frames. */
export const framingSchema = z.object({
  shot: z.string(),
  track: z.string(),
  keyframes: z.array(keyframeSchema).min(1),
});
export type Framing = z.infer<typeof framingSchema>;

/** The framing of a shot that nobody has touched: the middle of the picture, as wide as fills. */
export function plainFraming(shot: string, track: string, frame: number): Framing {
  const middle = { x: 0.5, y: 0.5 };
  return { shot, track, keyframes: [{ frame, focus: middle, seat: middle, zoom: 1 }] };
}

const mix = (a: number, b: number, u: number): number => a + (b - a) * u;
const mixPoints = (a: Point, b: Point, u: number): Point => ({ x: mix(a.x, b.x, u), y: mix(a.y, b.y, u) });

/** A framing's values at a frame: those of the nearest keyframe outside the keyframes, linear between two. */
export function keyframeAt(keyframes: readonly Keyframe[], frame: number): Keyframe {
  const after = keyframes.findIndex((key) => key.frame > frame);
  const before = keyframes[after < 0 ? keyframes.length - 1 : after - 1];
  const next = keyframes[after];
  if (!before || !next) {
    const only = before ?? next;
    if (!only) throw new RangeError('a framing has at least one keyframe');
    return { ...only, frame };
  }
  const u = (frame - before.frame) / (next.frame - before.frame);
  return {
    frame,
    focus: mixPoints(before.focus, next.focus, u),
    seat: mixPoints(before.seat, next.seat, u),
    zoom: mix(before.zoom, next.zoom, u),
  };
}

/** The size of the largest window of a pane's ratio, 0…1 of the live area. Ratios are width over height. */
export function widestWindow(paneAspect: number, liveAspect: number): { width: number; height: number } {
  const ratio = paneAspect / liveAspect;
  return ratio <= 1 ? { width: ratio, height: 1 } : { width: 1, height: 1 / ratio };
}

/**
 * The window of a framing at a frame: the largest rectangle of the pane's ratio, divided by zoom, placed so that
 * the focus is at its seat, then clamped inside the live area. So it never leaves the picture.
 *
 * @param paneAspect width over height of the pane. @param liveAspect width over height of the live area.
 * @returns 0…1 of the live area, y down.
 */
export function windowAt(
  keyframes: readonly Keyframe[],
  frame: number,
  paneAspect: number,
  liveAspect: number,
): Rect {
  return windowOf(keyframeAt(keyframes, frame), paneAspect, liveAspect);
}

/** {@link windowAt} for values that are known already. */
export function windowOf(key: Keyframe, paneAspect: number, liveAspect: number): Rect {
  const widest = widestWindow(paneAspect, liveAspect);
  const width = widest.width / key.zoom;
  const height = widest.height / key.zoom;
  return {
    x: clamp(key.focus.x - key.seat.x * width, 0, 1 - width),
    y: clamp(key.focus.y - key.seat.y * height, 0, 1 - height),
    width,
    height,
  };
}
