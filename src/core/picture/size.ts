import { z } from 'zod';
import { measure, sidePixels } from '../figures/bounded';
import { greatestDivisor } from '../figures/greatest-divisor';

/** A picture's size in square pixels. */
export const sizeSchema = z.object({ width: sidePixels(), height: sidePixels() });
export type Size = z.infer<typeof sizeSchema>;

/** A rectangle; the unit is said where it is used. y runs down. */
const rectSchema = z.object({
  x: measure(),
  y: measure(),
  width: sidePixels(),
  height: sidePixels(),
});
export type Rect = z.infer<typeof rectSchema>;

declare const space: unique symbol;
/** A rectangle in a space of its own: two of different spaces do not mix. One that is written out fits any. */
export type RectIn<Space extends string> = Rect & { readonly [space]?: Space };
/** 0…1 of the picture as it is stored. */
export type StoredRect = RectIn<'stored picture'>;
/** 0…1 of the upright picture. */
export type PictureRect = RectIn<'picture'>;
/** 0…1 of a live area. */
export type LiveRect = RectIn<'live area'>;
/** Pixels of a canvas. */
export type CanvasRect = RectIn<'canvas'>;

export const pictureRectSchema = rectSchema as z.ZodType<PictureRect>;
export const storedRectSchema = rectSchema as z.ZodType<StoredRect>;

/** All of whatever a rectangle is given 0…1 of. */
export const WHOLE_RECT = { x: 0, y: 0, width: 1, height: 1 };

/** A size in words: `1080×1920`. */
export const sizeLabel = ({ width, height }: Size): string => `${width}×${height}`;

/** The ratio in the trade's words: `16:9`, `4:5`, `1.91:1`. @param size whole numbers, over 0. */
export function ratioLabel({ width, height }: Size): string {
  const common = greatestDivisor(width, height);
  const [across, down] = [width / common, height / common];
  if (across <= 21 && down <= 21) return `${across}:${down}`;
  return width >= height ? `${formatShort(width / height)}:1` : `1:${formatShort(height / width)}`;
}

const formatShort = (value: number): string => String(Number(value.toFixed(2)));

/** Holds a number between two bounds. */
export function clamp(value: number, least: number, most: number): number {
  return Math.min(Math.max(value, least), most);
}
