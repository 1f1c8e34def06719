import { z } from 'zod';
import type { Size } from './size';

/** Degrees clockwise that a picture is turned for display. */
export const rotationSchema = z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]);
export type Rotation = z.infer<typeof rotationSchema>;
export const ROTATIONS: readonly Rotation[] = [0, 90, 180, 270];

/** Width of a pixel over its height. */
export const pixelAspectSchema = z.object({
  num: z.number().int().positive(),
  den: z.number().int().positive(),
});
export type PixelAspect = z.infer<typeof pixelAspectSchema>;
export const SQUARE: PixelAspect = { num: 1, den: 1 };

/**
 * Size in square pixels of samples that are shown with a pixel aspect and a rotation. The shorter way is stretched,
 * so that no sample is lost: 240 lines whose pixels are twice as high as wide become 480.
 *
 * @returns whole pixels, upright.
 */
export function uprightSize(coded: Size, aspect: PixelAspect, rotation: Rotation): Size {
  const ratio = aspect.num / aspect.den;
  const width = Math.round(ratio >= 1 ? coded.width * ratio : coded.width);
  const height = Math.round(ratio >= 1 ? coded.height : coded.height / ratio);
  return rotation % 180 === 0 ? { width, height } : { width: height, height: width };
}
