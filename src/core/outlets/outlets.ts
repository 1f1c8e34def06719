import type { Canvas } from '../layout/canvas';
import type { Size } from '../picture/size';
import type { Placement } from './placement';
import { PLAIN_PLACEMENT } from './plain-placement';
import { type RuleSheet, SHEET_VERSION, type Sheets } from './rule-sheet';
import { usualSize } from './taken-sizes';

/** A placement with the outlet that it belongs to. */
export interface OutletPlacement {
  /** `outlet/placement`, the key that jobs store. */
  key: string;
  sheet: RuleSheet;
  placement: Placement;
  /** `Verrow Short`. */
  label: string;
}

const toOutletPlacement = (sheet: RuleSheet, placement: Placement): OutletPlacement => ({
  key: `${sheet.outlet}/${placement.id}`,
  sheet,
  placement,
  label: `${sheet.name} ${placement.name}`,
});

/** Every placement of some sheets, in their order. */
export const listPlacements = (sheets: Sheets): OutletPlacement[] =>
  sheets.flatMap((sheet) => sheet.placements.map((placement) => toOutletPlacement(sheet, placement)));

/** The placement of a key, or null where no sheet has it. */
export const findPlacement = (sheets: Sheets, key: string): OutletPlacement | null => {
  const [outlet, id] = key.split('/');
  const sheet = sheets.find((sheet) => sheet.outlet === outlet);
  const placement = sheet?.placements.find((placement) => placement.id === id);
  return sheet && placement ? toOutletPlacement(sheet, placement) : null;
};

/** Tags that some placement requires. */
export const listRequiredTags = (sheets: Sheets): string[] =>
  listPlacements(sheets).flatMap(({ placement }) => placement.words.tags.required ?? []);

/** The key of a size of the person's own, which no outlet sets limits for. */
export const OWN_KEY = 'own/size';

/**
 * Finds the placement that a canvas is judged by; for a size of its own, or a placement that no sheet has any
 * more, nothing but what a file can hold.
 */
export function findTarget(
  sheets: Sheets,
  { placement, width, height }: Pick<Canvas, 'placement'> & Size,
): OutletPlacement {
  const found = placement === null ? null : findPlacement(sheets, placement);
  if (found) return found;
  const limits: Placement = { ...OWN_LIMITS, sizes: { kind: 'one', size: { width, height } } };
  return {
    key: OWN_KEY,
    label: placement === null ? `Own ${width}×${height}` : `${placement} (no rule sheet)`,
    sheet: { ...OWN_SHEET, placements: [limits] },
    placement: limits,
  };
}

/** Every placement that a canvas is judged by: its own, then those that it is made for besides. */
export function listTargets(
  sheets: Sheets,
  canvas: Pick<Canvas, 'placement' | 'also'> & Size,
): OutletPlacement[] {
  const also = (canvas.also ?? []).filter((key) => key !== canvas.placement);
  return [findTarget(sheets, canvas), ...also.flatMap((key) => findPlacement(sheets, key) ?? [])];
}

/** The size of a canvas that is made for a placement. */
export const chooseCanvasSize = ({ placement }: OutletPlacement): Size => usualSize(placement.sizes);

/** Label of a canvas: its placement, or its size. */
export const canvasLabel = (sheets: Sheets, canvas: Pick<Canvas, 'placement'> & Size): string =>
  findTarget(sheets, canvas).label;

const OWN_LIMITS: Placement = { ...PLAIN_PLACEMENT, id: 'size', name: 'Own size' };
const OWN_SHEET: RuleSheet = {
  schemaVersion: SHEET_VERSION,
  outlet: 'own',
  name: 'no outlet',
  about: 'A custom size',
  date: '2026-01-01',
  source: '',
  placements: [OWN_LIMITS],
};
