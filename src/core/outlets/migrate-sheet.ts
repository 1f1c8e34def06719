import { z } from 'zod';
import { boundedNumber, byteCount, MAX_SIDE_PIXELS, measure, seconds } from '../figures/bounded';
import { frameRateSchema } from '../time/frame-rate';
import { CONTAINERS } from './limits/container';
import type { Placement } from './placement';
import { PLAIN_PLACEMENT } from './plain-placement';
import { type RuleSheet, SHEET_VERSION } from './rule-sheet';

/** A rule sheet of version 1, as far as it is read. */
const firstSchema = z.object({
  outlet: z.string(),
  name: z.string(),
  about: z.string(),
  date: z.string(),
  placements: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      width: boundedNumber(0, MAX_SIDE_PIXELS),
      height: boundedNumber(0, MAX_SIDE_PIXELS),
      maxSeconds: seconds(),
      bestSeconds: z.object({ from: seconds(), to: seconds() }).optional(),
      maxRate: frameRateSchema,
      maxBytes: byteCount(),
      containers: z.array(z.enum(CONTAINERS)),
      bars: z.enum(['refused', 'discouraged']),
      audio: z.object({
        required: z.boolean(),
        sampleRates: z.array(measure()),
        leastChannels: z.union([z.literal(1), z.literal(2)]).default(1),
      }),
      requiredTag: z.string().optional(),
      titleCharacters: measure(),
      descriptionCharacters: measure(),
    }),
  ),
});
type FirstPlacement = z.infer<typeof firstSchema>['placements'][number];

/** Migrates a placement of version 1: nothing more is asked than before. */
const fromFirst = ({ maxRate, audio, ...first }: FirstPlacement): Placement => ({
  ...PLAIN_PLACEMENT,
  id: first.id,
  name: first.name,
  sizes: { kind: 'one', size: { width: first.width, height: first.height } },
  bars: first.bars,
  length: { least: null, most: first.maxSeconds, best: first.bestSeconds ?? null },
  mostBytes: first.maxBytes,
  containers: first.containers,
  video: { ...PLAIN_PLACEMENT.video, mostRate: maxRate },
  audio: { ...PLAIN_PLACEMENT.audio, ...audio },
  words: {
    title: first.titleCharacters,
    description: { most: first.descriptionCharacters, seen: first.descriptionCharacters },
    tags: { ...PLAIN_PLACEMENT.words.tags, required: first.requiredTag ?? null },
  },
});

/** Migrations that make a rule sheet of each older version one of the next. */
const STEPS: Record<number, (sheet: unknown) => unknown> = {
  1: (sheet): RuleSheet => {
    const { placements, ...rest } = firstSchema.parse(sheet);
    return { ...rest, schemaVersion: SHEET_VERSION, source: '', placements: placements.map(fromFirst) };
  },
};

/**
 * A rule sheet of an older version in the form of today.
 * @throws ZodError for what never was such a sheet.
 */
export function migrateSheet(sheet: unknown, version: number): unknown {
  let now = sheet;
  for (let from = version; from < SHEET_VERSION; from++) now = STEPS[from]?.(now) ?? now;
  return now;
}
