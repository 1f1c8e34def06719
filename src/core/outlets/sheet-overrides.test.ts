import type { RuleSheet } from './rule-sheet';
import {
  MAX_VERSIONS,
  readSheetOverrides,
  listRemovedSheets,
  type SheetOverrides,
  sheetsInUse,
  listSheetVersions,
  withRemoved,
  withVersion,
  writeShelf,
} from './sheet-overrides';
import { SHIPPED_SHEETS } from './shipped';

const [verrow] = SHIPPED_SHEETS as [RuleSheet];
const changed: RuleSheet = { ...verrow, date: '2026-12-01', about: 'Changed' };
const own: RuleSheet = { ...verrow, outlet: 'wall', name: 'A wall' };
const names = (shelf: SheetOverrides) => sheetsInUse(SHIPPED_SHEETS, shelf).map(({ name }) => name);
const SHIPPED = ['Verrow', 'Tesselle', 'Commonfold', 'Longshelf'];

describe('the sheets of a browser', () => {
  it('are those that ship, then the own ones', () => {
    expect(names({})).toEqual(SHIPPED);
    expect(names(withVersion({}, own))).toEqual([...SHIPPED, 'A wall']);
  });

  it('are the newest versions, and every version before them is kept', () => {
    const shelf = withVersion({}, changed);
    expect(sheetsInUse(SHIPPED_SHEETS, shelf)[0]).toBe(changed);
    expect(listSheetVersions(SHIPPED_SHEETS, shelf, 'verrow')).toEqual([verrow, changed]);
    expect(sheetsInUse(SHIPPED_SHEETS, withVersion(shelf, verrow))[0]).toBe(verrow);
  });

  it('forget the oldest of too many versions, but never the one that ships', () => {
    let shelf: SheetOverrides = {};
    for (let n = 0; n <= MAX_VERSIONS; n++) shelf = withVersion(shelf, { ...verrow, about: `version ${n}` });
    const kept = listSheetVersions(SHIPPED_SHEETS, shelf, 'verrow');
    expect(kept).toHaveLength(MAX_VERSIONS + 1);
    expect(kept[0]).toBe(verrow);
    expect(kept[1]?.about).toBe('version 1');
  });

  it('can be removed and brought back, with their versions', () => {
    const gone = withRemoved(withVersion({}, own), 'wall', true);
    expect(names(gone)).toEqual(SHIPPED);
    expect(listRemovedSheets(SHIPPED_SHEETS, gone)).toEqual([own]);
    expect(names(withRemoved(gone, 'wall', false))).toContain('A wall');
    expect(names(withRemoved({}, 'tesselle', true))).not.toContain('Tesselle');
    // Writing one anew brings it back too.
    expect(names(withVersion(gone, own))).toContain('A wall');
  });

  it('come back from storage; what cannot be read is named and does no harm', () => {
    const shelf = withRemoved(withVersion({}, changed), 'tesselle', true);
    expect(readSheetOverrides(writeShelf(shelf))).toEqual({ shelf, lost: [] });
    const broken = writeShelf({ ...shelf, wall: { versions: [{ name: 'x' } as never], removed: false } });
    expect(readSheetOverrides(broken)).toMatchObject({
      shelf: { verrow: { versions: [changed] } },
      lost: ['wall'],
    });
    expect(readSheetOverrides('not JSON')).toEqual({ shelf: {}, lost: ['all'] });
  });
});
