import { type Placement, type RuleSheet, ruleSheetSchema } from './rule-sheet';
import tesselle from './sheets/tesselle.json';
import verrow from './sheets/verrow.json';

/** The rule sheets that ship, checked as they are loaded. */
export const RULE_SHEETS: readonly RuleSheet[] = [verrow, tesselle].map((sheet) =>
  ruleSheetSchema.parse(sheet),
);

/** A placement with the outlet that it belongs to. */
export interface OutletPlacement {
  /** `outlet/placement`, the key that jobs store. */
  key: string;
  sheet: RuleSheet;
  placement: Placement;
  /** `Verrow Short`. */
  label: string;
}

/** Every placement of every sheet, in the sheets' order. */
export const PLACEMENTS: readonly OutletPlacement[] = RULE_SHEETS.flatMap((sheet) =>
  sheet.placements.map((placement) => ({
    key: `${sheet.outlet}/${placement.id}`,
    sheet,
    placement,
    label: `${sheet.name} ${placement.name}`,
  })),
);

/** The placement of a key. @throws RangeError for a key that no sheet has. */
export function placementOf(key: string): OutletPlacement {
  const found = PLACEMENTS.find((one) => one.key === key);
  if (!found) throw new RangeError(`no rule sheet has a placement ${key}`);
  return found;
}
