import { sheetChanges } from './compare';
import type { RuleSheet } from './rule-sheet';
import { SHIPPED_SHEETS } from './shipped';

const verrow = SHIPPED_SHEETS[0] as RuleSheet;
const [short] = verrow.placements as [RuleSheet['placements'][number]];
const changed = (change: Partial<typeof short>): RuleSheet => ({
  ...verrow,
  placements: [{ ...short, ...change }],
});

describe('two versions of a rule sheet', () => {
  it('are compared value by value', () => {
    expect(sheetChanges(verrow, verrow)).toEqual([]);
    const after = changed({ length: { ...short.length, most: 45, best: null }, childrenStatement: false });
    expect(sheetChanges(verrow, { ...after, date: '2026-12-01' })).toEqual([
      { place: 'date', before: verrow.date, after: '2026-12-01' },
      { place: 'Short: length, most', before: '60', after: '45' },
      { place: 'Short: length, best', before: '15 20', after: 'none' },
      { place: 'Short: children statement', before: 'yes', after: 'no' },
    ]);
  });

  it('tell placements that came or went', () => {
    const two = { ...verrow, placements: [short, { ...short, id: 'long', name: 'Long' }] };
    expect(sheetChanges(verrow, two)).toEqual([{ place: 'Long', before: 'none', after: 'taken' }]);
    expect(sheetChanges(two, verrow)).toEqual([{ place: 'Long', before: 'taken', after: 'none' }]);
  });
});
