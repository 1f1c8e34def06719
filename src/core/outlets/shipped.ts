import { type RuleSheet, ruleSheetSchema } from './rule-sheet';
import commonfold from './sheets/commonfold.json';
import longshelf from './sheets/longshelf.json';
import tesselle from './sheets/tesselle.json';
import verrow from './sheets/verrow.json';

/** The rule sheets that ship, checked as they are loaded. */
export const SHIPPED_SHEETS: readonly RuleSheet[] = [verrow, tesselle, commonfold, longshelf].map((sheet) =>
  ruleSheetSchema.parse(sheet),
);
