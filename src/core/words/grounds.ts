import type { CanvasRect, Size } from '../picture/size';
import type { Ground } from './text-block';

/** A band is one where it has at least this share of the canvas's height. */
const LEAST_BAND = 0.03;
/** Where words above and below lie on a canvas without bands: shares of its height, clear of most outlets' controls. */
const ABOVE = { from: 0.12, to: 0.28 };
const BELOW = { from: 0.6, to: 0.72 };

/**
 * The part of a canvas that a ground is, in pixels.
 * @param picture what the picture covers at most over the clip; null where it covers all of the canvas.
 */
export function groundRect(on: Ground, { width, height }: Size, picture: CanvasRect | null): CanvasRect {
  const rows = (from: number, to: number): CanvasRect => ({
    x: 0,
    y: Math.round(from),
    width,
    height: Math.max(1, Math.round(to) - Math.round(from)),
  });
  if (on === 'canvas' || on === 'card' || on === 'cover') return rows(0, height);
  const [above, below] = picture ? [picture.y, height - picture.y - picture.height] : [0, 0];
  if (on === 'above') {
    return above >= LEAST_BAND * height ? rows(0, above) : rows(ABOVE.from * height, ABOVE.to * height);
  }
  return below >= LEAST_BAND * height
    ? rows(height - below, height)
    : rows(BELOW.from * height, BELOW.to * height);
}
