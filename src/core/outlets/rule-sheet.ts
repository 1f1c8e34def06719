import { z } from 'zod';
import { placementSchema } from './placement';

/** The version of a rule sheet that this program writes. */
export const SHEET_VERSION = 2;

/** An outlet's limits as data with a date. */
export const ruleSheetSchema = z.object({
  schemaVersion: z.literal(SHEET_VERSION),
  /** ID of the outlet, by which jobs and posts name it. */
  outlet: z.string().regex(/^[a-z0-9-]{1,40}$/, { error: 'Use small letters, figures and hyphens.' }),
  name: z.string().trim().min(1).max(60),
  /** Description of the outlet, in a line. */
  about: z.string().max(120),
  /** When the limits were last looked at, ISO 8601. */
  date: z.iso.date(),
  /** Where the figures come from. */
  source: z.string().max(400),
  placements: z
    .array(placementSchema)
    .min(1)
    .refine((all) => new Set(all.map(({ id }) => id)).size === all.length, {
      error: 'Two placements have the same id.',
    }),
});
export type RuleSheet = z.infer<typeof ruleSheetSchema>;

/** The rule sheets of a browser: what its clips are judged by. */
export type Sheets = readonly RuleSheet[];
