import { z } from 'zod';
import { frameRateSchema } from '../time/frame-rate';

/** The limits of one kind of post. */
const placementSchema = z.object({
  id: z.string(),
  name: z.string(),
  width: z.number().int().multipleOf(2),
  height: z.number().int().multipleOf(2),
  /** Longest clip that is taken, in seconds; a clip exactly this long is legal. */
  maxSeconds: z.number().positive(),
  /** Where clips do best, in seconds. */
  bestSeconds: z.object({ from: z.number().positive(), to: z.number().positive() }).optional(),
  maxRate: frameRateSchema,
  maxBytes: z.number().int().positive(),
  /** Containers that are taken, by their short names. */
  containers: z.array(z.enum(['mp4', 'mov', 'webm'])).min(1),
  /** Whether black bars are taken; where they are not, they keep a post back. */
  bars: z.enum(['refused', 'discouraged']),
  audio: z.object({
    required: z.boolean(),
    sampleRates: z.array(z.number().int().positive()),
    /** Fewest channels that are taken: where it is 2, a mono master goes out with the same in both. */
    leastChannels: z.union([z.literal(1), z.literal(2)]).default(1),
  }),
  /** Without this tag the clip is not treated as what the placement is for. */
  requiredTag: z.string().optional(),
  titleCharacters: z.number().int().positive(),
  descriptionCharacters: z.number().int().positive(),
});
export type Placement = z.infer<typeof placementSchema>;

/** An outlet's limits as data with a date. */
export const ruleSheetSchema = z.object({
  schemaVersion: z.literal(1),
  outlet: z.string(),
  name: z.string(),
  /** One line on what the outlet is. */
  about: z.string(),
  /** When the limits were last looked at, ISO 8601. */
  date: z.iso.date(),
  placements: z.array(placementSchema).min(1),
});
export type RuleSheet = z.infer<typeof ruleSheetSchema>;
