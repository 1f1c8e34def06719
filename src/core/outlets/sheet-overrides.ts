import { z } from 'zod';
import { readSheet } from './read-sheet';
import type { RuleSheet, Sheets } from './rule-sheet';

/** Versions of a rule sheet that are kept, the newest last. */
export const MAX_VERSIONS = 20;

/** A rule sheet that a person changed, wrote, brought in or removed. */
interface KeptSheet {
  versions: RuleSheet[];
  removed: boolean;
}
/** Rule sheets of a browser that a person changed or made, by outlet; the others are those that ship. */
export type SheetOverrides = Record<string, KeptSheet>;

/** The rule sheets in use: those that ship, in their order, then the person's own by name. */
export function sheetsInUse(shipped: Sheets, shelf: SheetOverrides): RuleSheet[] {
  const own = Object.keys(shelf)
    .filter((outlet) => !shipped.some((sheet) => sheet.outlet === outlet))
    .flatMap((outlet) => newest(shipped, shelf, outlet) ?? [])
    .sort((a, b) => a.name.localeCompare(b.name));
  return [...shipped.flatMap(({ outlet }) => newest(shipped, shelf, outlet) ?? []), ...own].filter(
    ({ outlet }) => !shelf[outlet]?.removed,
  );
}

/** Every version of an outlet's sheet that is known, the oldest first; one that ships comes before all. */
export function listSheetVersions(shipped: Sheets, shelf: SheetOverrides, outlet: string): RuleSheet[] {
  return [...shipped.filter((sheet) => sheet.outlet === outlet), ...(shelf[outlet]?.versions ?? [])];
}

const newest = (shipped: Sheets, shelf: SheetOverrides, outlet: string): RuleSheet | null =>
  listSheetVersions(shipped, shelf, outlet).at(-1) ?? null;

/** A shelf with a new version of a sheet, which is in use from then on; the oldest of too many goes. */
export function withVersion(shelf: SheetOverrides, sheet: RuleSheet): SheetOverrides {
  const before = shelf[sheet.outlet]?.versions ?? [];
  return { ...shelf, [sheet.outlet]: { versions: [...before, sheet].slice(-MAX_VERSIONS), removed: false } };
}

/** A shelf with a sheet taken out of use; its versions stay, so that it can come back. */
export function withRemoved(shelf: SheetOverrides, outlet: string, removed: boolean): SheetOverrides {
  return { ...shelf, [outlet]: { versions: shelf[outlet]?.versions ?? [], removed } };
}

/** Outlets whose sheets were removed and can come back, with the newest version of each. */
export function listRemovedSheets(shipped: Sheets, shelf: SheetOverrides): RuleSheet[] {
  return Object.keys(shelf)
    .filter((outlet) => shelf[outlet]?.removed)
    .flatMap((outlet) => newest(shipped, shelf, outlet) ?? []);
}

/** A shelf as it is stored. */
export const writeShelf = (shelf: SheetOverrides): string => JSON.stringify(shelf);

/** A stored shelf; sheets of older versions are migrated, and those that cannot be read are named. */
export function readSheetOverrides(text: string): { shelf: SheetOverrides; lost: string[] } {
  const outer = z
    .record(z.string(), z.object({ versions: z.array(z.unknown()), removed: z.boolean() }))
    .safeParse(parseJson(text));
  if (!outer.success) return { shelf: {}, lost: text === '' ? [] : ['all'] };
  const shelf: SheetOverrides = {};
  const lost: string[] = [];
  for (const [outlet, { versions, removed }] of Object.entries(outer.data)) {
    const read = versions.map(readSheet);
    shelf[outlet] = { versions: read.flatMap((one) => ('sheet' in one ? one.sheet : [])), removed };
    if (read.some((one) => 'problem' in one)) lost.push(outlet);
  }
  return { shelf, lost };
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
