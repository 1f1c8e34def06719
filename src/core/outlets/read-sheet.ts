import { z } from 'zod';
import { boundedCount } from '../figures/bounded';
import { describeProblem } from '../figures/schema-problem';
import { migrateSheet } from './migrate-sheet';
import { type RuleSheet, ruleSheetSchema, SHEET_VERSION } from './rule-sheet';

/** A rule sheet, or what is wrong with what should be one. */
export type ReadSheet = { sheet: RuleSheet } | { problem: string };

const versionSchema = z.looseObject({ schemaVersion: boundedCount() });

/** Reads a rule sheet, also one of an older version. Never throws. */
export function readSheet(value: unknown): ReadSheet {
  const version = versionSchema.safeParse(value);
  if (!version.success) return { problem: 'It is not a rule sheet: it has no schemaVersion.' };
  const { schemaVersion } = version.data;
  if (schemaVersion > SHEET_VERSION)
    return { problem: `It was written by a newer Gusset (version ${schemaVersion}).` };
  try {
    return { sheet: ruleSheetSchema.parse(migrateSheet(value, schemaVersion)) };
  } catch (error) {
    if (!(error instanceof z.ZodError)) throw error;
    return { problem: describeProblem(error, 'the sheet') };
  }
}
