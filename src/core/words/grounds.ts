import type { CanvasRect, Size } from '../picture/size';
import type { ContainerRegion } from './text-block';

/** A band is one where it has at least this share of the canvas's height. */
const MIN_BAND = 0.03;
/** Where words above and below lie on a canvas without bands: shares of its height, clear of most outlets' controls. */
const ABOVE = { from: 0.12, to: 0.28 };
const BELOW = { from: 0.6, to: 0.72 };

/** Pixels of the band above or below a picture; 0 where there is none that can hold words. */
function bandHeight(on: 'above' | 'below', { height }: Size, picture: CanvasRect | null): number {
  const band = !picture ? 0 : on === 'above' ? picture.y : height - picture.y - picture.height;
  return band >= MIN_BAND * height ? band : 0;
}

/** Tells whether words that belong on a band have none on a canvas, and lie on its picture. */
export const isOffBand = (on: ContainerRegion, canvas: Size, picture: CanvasRect | null): boolean =>
  (on === 'above' || on === 'below') && bandHeight(on, canvas, picture) === 0;

/**
 * The part of a canvas that a ground is, in pixels.
 * @param picture what the picture covers at most over the clip; null where it covers all of the canvas.
 */
export function groundRect(on: ContainerRegion, canvas: Size, picture: CanvasRect | null): CanvasRect {
  const { width, height } = canvas;
  const rows = (from: number, to: number): CanvasRect => ({
    x: 0,
    y: Math.round(from),
    width,
    height: Math.max(1, Math.round(to) - Math.round(from)),
  });
  if (on !== 'above' && on !== 'below') return rows(0, height);
  const band = bandHeight(on, canvas, picture);
  if (band > 0) return on === 'above' ? rows(0, band) : rows(height - band, height);
  const { from, to } = on === 'above' ? ABOVE : BELOW;
  return rows(from * height, to * height);
}
