import { sheetChanges } from './compare';
import type { RuleSheet } from './rule-sheet';
import { SHIPPED_SHEETS } from './shipped';

const [shipped] = SHIPPED_SHEETS as [RuleSheet];
const [short] = shipped.placements as [RuleSheet['placements'][number]];
const verrow = { ...shipped, placements: [short] };
const changed = (change: Partial<typeof short>): RuleSheet => ({
  ...verrow,
  placements: [{ ...short, ...change }],
});

describe('two versions of a rule sheet', () => {
  it('are compared value by value', () => {
    expect(sheetChanges(verrow, verrow)).toEqual([]);
    const after = changed({ length: { ...short.length, most: 45, best: null }, childrenStatement: false });
    expect(sheetChanges(verrow, { ...after, date: '2026-12-01' })).toEqual([
      { place: 'Checked on', before: verrow.date, after: '2026-12-01' },
      { place: 'Short, length: Longest', before: '60 s', after: '45 s' },
      { place: 'Short, length: Where clips do best', before: 'From 15 s, To 20 s', after: 'none' },
      { place: 'Short, post: Asks whether it is made for children', before: 'yes', after: 'no' },
    ]);
  });

  it('tell placements that came or went', () => {
    const two = { ...verrow, placements: [short, { ...short, id: 'long', name: 'Long' }] };
    expect(sheetChanges(verrow, two)).toEqual([{ place: 'Long', before: 'none', after: 'taken' }]);
    expect(sheetChanges(two, verrow)).toEqual([{ place: 'Long', before: 'taken', after: 'none' }]);
  });
});
