import { z } from 'zod';
import { boundedInt, MAX_COUNT } from '../figures/bounded';
import type { Size } from './size';

/** Degrees clockwise that a picture is turned for display. */
export const rotationSchema = z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]);
export type Rotation = z.infer<typeof rotationSchema>;

/** Width of a pixel over its height. */
export const pixelAspectSchema = z.object({
  num: boundedInt(1, MAX_COUNT),
  den: boundedInt(1, MAX_COUNT),
});
export type PixelAspect = z.infer<typeof pixelAspectSchema>;

/** Pixel aspects in use (ITU-T H.264 table E-1, and its halves and doubles for pictures of half their lines). */
const KNOWN_ASPECTS: readonly PixelAspect[] = (
  [
    [1, 1],
    [12, 11],
    [10, 11],
    [16, 11],
    [40, 33],
    [24, 11],
    [20, 11],
    [32, 11],
    [80, 33],
    [18, 11],
    [15, 11],
    [64, 33],
    [160, 99],
    [4, 3],
    [3, 2],
    [2, 1],
    [1, 2],
  ] as const
).map(([num, den]) => ({ num, den }));

/**
 * The aspect that a file means: some say only a whole display width, which is a pixel off the true ratio.
 * @param width stored samples of a row.
 */
export function nearestAspect(aspect: PixelAspect, width: number): PixelAspect {
  const ratio = aspect.num / aspect.den;
  const near = KNOWN_ASPECTS.find(({ num, den }) => Math.abs(num / den - ratio) * width < 0.75);
  return near ?? aspect;
}

/**
 * Size in square pixels of samples that are shown with a pixel aspect and a rotation. The shorter way is stretched,
 * so that no sample is lost (`stored-picture.test.ts`): 240 lines whose pixels are twice as high as wide become 480.
 *
 * @returns whole pixels, upright.
 */
export function uprightSize(coded: Size, aspect: PixelAspect, rotation: Rotation): Size {
  const ratio = aspect.num / aspect.den;
  const width = Math.round(ratio >= 1 ? coded.width * ratio : coded.width);
  const height = Math.round(ratio >= 1 ? coded.height : coded.height / ratio);
  return rotation % 180 === 0 ? { width, height } : { width: height, height: width };
}
