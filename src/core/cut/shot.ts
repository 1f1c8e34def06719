import { z } from 'zod';
import { boundedNumber, frameCount, frameIndex } from '../figures/bounded';
import { pictureRectSchema } from '../picture/size';

/** How a shot begins. `set`: where a person or a cut list put it. */
const TRANSITIONS = ['cut', 'dissolve', 'fade', 'set'] as const;

/** The beginning of a shot as it was found. */
export const shotStartSchema = z.object({
  kind: z.enum(TRANSITIONS),
  /** 0…1. */
  confidence: boundedNumber(0, 1),
  /** Frames that the transition lasts, half of them before the shot's first frame; 0 for a cut. */
  frames: frameIndex(),
});
export type ShotStart = z.infer<typeof shotStartSchema>;

/** The frames between two cuts of a master, half-open. */
export const shotSchema = z.object({
  id: z.string(),
  master: z.string(),
  in: frameIndex(),
  out: frameCount(),
  /** Null for the first shot of a master. */
  start: shotStartSchema.nullable(),
  /** Its own live area where it differs from its master's, 0…1 of the picture. */
  live: pictureRectSchema.nullable(),
});
export type Shot = z.infer<typeof shotSchema>;
