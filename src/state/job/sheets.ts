import { create } from 'zustand';
import { readSheetFile, writeSheetFile } from '@core/interchange/sheet-file';
import type { RuleSheet, Sheets } from '@core/outlets/rule-sheet';
import {
  readSheetOverrides,
  listRemovedSheets,
  type SheetOverrides,
  sheetsInUse,
  listSheetVersions,
  withRemoved,
  withVersion,
  writeShelf,
} from '@core/outlets/sheet-overrides';
import { SHIPPED_SHEETS } from '@core/outlets/shipped';
import { sharedSetting } from '../store';

const SETTING = 'rule-sheets';

interface SheetsState {
  shelf: SheetOverrides;
  /** Rule sheets that clips of this browser are judged by. */
  sheets: Sheets;
  /** Outlets of which stored versions could not be read. */
  lost: string[];
  /** The last change that was made in this tab, with the sheets before it. */
  last: { outlet: string; name: string; before: Sheets } | null;
}

/** The rule sheets of this browser: those that ship, and what the person made of them. */
export const useSheets = create<SheetsState>(() => ({
  shelf: {},
  sheets: SHIPPED_SHEETS,
  lost: [],
  last: null,
}));

/** The rule sheets in use. */
export const sheetsNow = (): Sheets => useSheets.getState().sheets;

function show(shelf: SheetOverrides, lost: string[] = useSheets.getState().lost): void {
  useSheets.setState({ shelf, sheets: sheetsInUse(SHIPPED_SHEETS, shelf), lost });
}

/** Stored sheets, and the outlets whose sheets could not be read. */
const stored = sharedSetting<ReturnType<typeof readSheetOverrides>>(SETTING, {
  label: 'rule sheets',
  read(text, onLoss) {
    const read = readSheetOverrides(text ?? '{}');
    if (read.lost.length > 0) onLoss();
    return read;
  },
  write: ({ shelf }) => writeShelf(shelf),
});

/** Reads the stored sheets once the app opens, and hears from then on what other tabs make of them. */
export async function openSheets(): Promise<void> {
  const { shelf, lost } = await stored.load();
  show(shelf, lost);
  stored.listen((now) => show(now.shelf, now.lost));
}

/** Changes the stored shelf: what another tab wrote meanwhile stays. */
async function change(outlet: string, made: (shelf: SheetOverrides) => SheetOverrides): Promise<void> {
  let before: RuleSheet[] = [];
  const { shelf } = await stored.change((now) => {
    before = [...sheetsInUse(SHIPPED_SHEETS, now.shelf)];
    return { ...now, shelf: made(now.shelf) };
  });
  show(shelf);
  const named = [...sheetsNow(), ...before].find((sheet) => sheet.outlet === outlet);
  useSheets.setState({ last: { outlet, name: named?.name ?? outlet, before } });
}

/** Puts a version of a sheet into use; those before it are kept. */
export const keepSheet = (sheet: RuleSheet): Promise<void> =>
  change(sheet.outlet, (shelf) => withVersion(shelf, sheet));

/** Takes a sheet out of use, or brings one back. */
export const removeSheet = (outlet: string): Promise<void> =>
  change(outlet, (shelf) => withRemoved(shelf, outlet, true));
export const bringSheetBack = (outlet: string): Promise<void> =>
  change(outlet, (shelf) => withRemoved(shelf, outlet, false));

/** The last change is not told any longer. */
export const forgetLastChange = (): void => useSheets.setState({ last: null });

/** Every version of a sheet, the oldest first. */
export const sheetVersions = (shelf: SheetOverrides, outlet: string): RuleSheet[] =>
  listSheetVersions(SHIPPED_SHEETS, shelf, outlet);

/** Sheets that were removed, and can come back. */
export const listOwnRemovedSheets = (shelf: SheetOverrides): RuleSheet[] =>
  listRemovedSheets(SHIPPED_SHEETS, shelf);

/** Tells whether a sheet ships with the program. */
export const isShipped = (outlet: string): boolean => SHIPPED_SHEETS.some((sheet) => sheet.outlet === outlet);

/** A sheet as a file to keep or hand on. */
export const sheetFile = (sheet: RuleSheet): File =>
  new File([writeSheetFile(sheet)], `${sheet.outlet}.rules.json`, { type: 'application/json' });

/** The sheet of a file, or what is wrong with it. Nothing is taken into use yet. */
export const readSheetOfFile = async (file: File) => readSheetFile(await file.text());
