import { z } from 'zod';
import { type ReadSheet, readSheet } from '../outlets/read-sheet';
import { type RuleSheet, ruleSheetSchema } from '../outlets/rule-sheet';

const FORMAT = 'gusset-rule-sheet';

const sheetFileSchema = z.object({ format: z.literal(FORMAT), sheet: ruleSheetSchema });

/** A rule sheet as a JSON file. */
export const writeSheetFile = (sheet: RuleSheet): string =>
  `${JSON.stringify({ format: FORMAT, sheet }, null, 2)}\n`;

/** Reads a rule sheet from a JSON file. Never throws. */
export function readSheetFile(text: string): ReadSheet {
  try {
    const outer = z.object({ format: z.literal(FORMAT), sheet: z.unknown() }).safeParse(JSON.parse(text));
    return outer.success
      ? readSheet(outer.data.sheet)
      : { problem: 'It is not a rule sheet that was saved here.' };
  } catch {
    return { problem: 'It is not JSON.' };
  }
}

/** The published form of the file, as JSON Schema (draft 2020-12). */
export const sheetFileJsonSchema = (): object => z.toJSONSchema(sheetFileSchema, { io: 'input' });
