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
  const found = PLACEMENTS.find((placement) => placement.key === key);
  if (!found) throw new RangeError(`no rule sheet has a placement ${key}`);
  return found;
}

/** The key of a size of the person's own, which no outlet sets limits for. */
export const OWN_KEY = 'own/size';

/** What a canvas is judged by: its placement, or for a size of its own nothing but what a file can hold. */
export function targetOf({
  placement,
  width,
  height,
}: {
  placement: string | null;
  width: number;
  height: number;
}): OutletPlacement {
  if (placement !== null) return placementOf(placement);
  return {
    key: OWN_KEY,
    label: `Own ${width}×${height}`,
    sheet: { ...OWN_SHEET, placements: [{ ...OWN_LIMITS, width, height }] },
    placement: { ...OWN_LIMITS, width, height },
  };
}

const OWN_LIMITS: Placement = {
  id: 'size',
  name: 'Own size',
  width: 16,
  height: 16,
  maxSeconds: 86_400,
  maxRate: { num: 240, den: 1 },
  maxBytes: 1e12,
  containers: ['mp4'],
  bars: 'discouraged',
  audio: { required: false, sampleRates: [48000], leastChannels: 1 },
  titleCharacters: 1000,
  descriptionCharacters: 10_000,
};
const OWN_SHEET: RuleSheet = {
  schemaVersion: 1,
  outlet: 'own',
  name: 'no outlet',
  about: 'A size of your own',
  date: '2026-01-01',
  placements: [OWN_LIMITS],
};
