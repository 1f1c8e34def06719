import { z } from 'zod';
import { pixelAspectSchema, rotationSchema } from '../picture/orientation';
import { pictureRectSchema } from '../picture/size';
import { frameRateSchema } from '../time/frame-rate';

/**
 * Repairs that a person makes to a master's facts. The file is never touched; null keeps what the file says.
 */
export const repairsSchema = z.object({
  pixelAspect: pixelAspectSchema.nullable(),
  rotation: rotationSchema.nullable(),
  flip: z.boolean().nullable(),
  /** The part of the upright picture that is picture, 0…1; null is all of it. */
  live: pictureRectSchema.nullable(),
  fullRange: z.boolean().nullable(),
  /** Colour matrix by its name in the WebCodecs specification. */
  matrix: z.string().nullable(),
  /** The even rate that a varying one is mapped to. */
  rate: frameRateSchema.nullable(),
  /** Draw one field's missing lines anew, so that movement does not comb. */
  deinterlace: z.boolean(),
});
export type Repairs = z.infer<typeof repairsSchema>;

export const NO_REPAIRS: Repairs = {
  pixelAspect: null,
  rotation: null,
  flip: null,
  live: null,
  fullRange: null,
  matrix: null,
  rate: null,
  deinterlace: false,
};
