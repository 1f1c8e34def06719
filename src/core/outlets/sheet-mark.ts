import { shortHash } from '../figures/short-hash';
import type { RuleSheet } from './rule-sheet';

/** What a job remembers of a rule sheet that judged it. */
export interface SheetMark {
  date: string;
  /** A hash of all that the sheet says. */
  version: string;
}

/** The mark of a sheet: two sheets with the same say the same. */
export const markOf = (sheet: RuleSheet): SheetMark => ({ date: sheet.date, version: shortHash(sheet) });
