import { placementSchema } from './placement';
import { PLAIN_PLACEMENT } from './plain-placement';
import type { RuleSheet } from './rule-sheet';
import { toSheetMark } from './sheet-mark';
import { SHIPPED_SHEETS } from './shipped';

const sheetOf = (outlet: string): RuleSheet => SHIPPED_SHEETS.find((sheet) => sheet.outlet === outlet)!;
const versionOf = (sheet: RuleSheet): string => toSheetMark(sheet).version;

describe('the mark of a rule sheet', () => {
  // As they were stored with jobs from the beginning, of sheets that have not changed since.
  it.each([
    ['tesselle', '0b9df60898a39bd0'],
    ['longshelf', 'a9e07a23c230bc51'],
  ])('stays what it was while the sheet does: %s', (outlet, version) => {
    expect(versionOf(sheetOf(outlet))).toBe(version);
  });

  it('is the same in whatever order values lie', () => {
    const backwards = (value: unknown): unknown => {
      if (Array.isArray(value)) return value.map(backwards);
      if (typeof value !== 'object' || value === null) return value;
      return Object.fromEntries(
        Object.entries(value)
          .reverse()
          .map(([name, one]) => [name, backwards(one)]),
      );
    };
    for (const sheet of SHIPPED_SHEETS)
      expect(versionOf(backwards(sheet) as RuleSheet)).toBe(versionOf(sheet));
  });

  it.each(Object.entries(PLAIN_PLACEMENT).filter(([, value]) => typeof value === 'number'))(
    'is another with another %s',
    (name, value) => {
      const sheet = sheetOf('tesselle');
      const [first, ...rest] = sheet.placements;
      const changed = { ...sheet, placements: [{ ...first!, [name]: Number(value) + 1 }, ...rest] };
      expect(versionOf(changed)).not.toBe(versionOf(sheet));
    },
  );

  it('is kept by sheets that say nothing of a limit that came later: such a limit is null', () => {
    for (const { placements } of SHIPPED_SHEETS)
      for (const placement of placements)
        for (const name of Object.keys(placement)) {
          const read = placementSchema.safeParse({ ...placement, [name]: undefined });
          if (read.success) expect([name, read.data[name as 'maxLinks']]).toEqual([name, null]);
        }
  });

  it('is another once a limit that came later is set', () => {
    const sheet = sheetOf('tesselle');
    const [first, ...rest] = sheet.placements;
    const withLinks = (maxLinks: number | null) => ({
      ...sheet,
      placements: [{ ...first!, maxLinks }, ...rest],
    });
    expect(versionOf(withLinks(0))).not.toBe(versionOf(withLinks(null)));
    expect(versionOf(withLinks(null))).toBe(versionOf(sheet));
  });
});
