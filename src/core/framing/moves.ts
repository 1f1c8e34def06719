import { clamp, type Rect, type Size } from '../picture/size';
import { type Framing, type Keyframe, LEAST_ZOOM, MOST_ZOOM, type Point, windowOf } from './framing';

/** Ratios of the pane and of the live area, width over height. */
export interface Aspects {
  pane: number;
  live: number;
}

/** A keyframe whose focus is where its clamped window really puts it, so that the next move starts from there. */
function settled(key: Keyframe, aspects: Aspects): Keyframe {
  const window = windowOf(key, aspects.pane, aspects.live);
  return {
    ...key,
    focus: {
      x: clamp(window.x + key.seat.x * window.width, 0, 1),
      y: clamp(window.y + key.seat.y * window.height, 0, 1),
    },
  };
}

/**
 * A framing moved as a whole, every keyframe alike; it stops at the picture's edge. Held windows keep their place
 * along an axis in which they have no room.
 *
 * @param by distance in 0…1 of the live area.
 */
export function moved(framing: Framing, by: Point | { x: number; y: number }, aspects: Aspects): Framing {
  const keyframes = framing.keyframes.map((key) => {
    const at = settled(key, aspects);
    const focus = { x: clamp(at.focus.x + by.x, 0, 1), y: clamp(at.focus.y + by.y, 0, 1) };
    return settled({ ...at, focus }, aspects);
  });
  return { ...framing, keyframes };
}

/**
 * A framing zoomed as a whole. `pin` stays where it is in the window at `frame`.
 *
 * @param factor over 1 tightens; the result is held between the least and the most zoom.
 * @param pin a place in the live area.
 */
export function zoomed(framing: Framing, factor: number, pin: Point, aspects: Aspects): Framing {
  const keyframes = framing.keyframes.map((key) => {
    const zoom = clamp(key.zoom * factor, LEAST_ZOOM, MOST_ZOOM);
    const real = key.zoom / zoom;
    const at = settled(key, aspects);
    // The focus keeps its seat, so it moves toward the pin by what the window shrank.
    const focus = {
      x: clamp(pin.x + (at.focus.x - pin.x) * real, 0, 1),
      y: clamp(pin.y + (at.focus.y - pin.y) * real, 0, 1),
    };
    return settled({ ...at, zoom, focus }, aspects);
  });
  return { ...framing, keyframes };
}

/** How far a window may still move before it meets the picture's edge, in picture pixels. */
export interface Margin {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** @param window 0…1 of the picture. @param picture size in square pixels. */
export function marginOf(window: Rect, picture: Size): Margin {
  return {
    left: window.x * picture.width,
    right: (1 - window.x - window.width) * picture.width,
    top: window.y * picture.height,
    bottom: (1 - window.y - window.height) * picture.height,
  };
}

/**
 * Canvas pixels per master pixel: 1.778 when 1920×1080 fills 1080×1920; below 1 the master has pixels to spare.
 *
 * @param window 0…1 of the picture. @param paneWidth width in the canvas, in pixels.
 */
export function enlargement(window: Rect, picture: Size, paneWidth: number): number {
  return paneWidth / (window.width * picture.width);
}
