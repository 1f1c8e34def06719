import fc from 'fast-check';
import Papa from 'papaparse';
import { toCsv } from './csv';

describe('rows as CSV', () => {
  it('hold no formula, also in a cell of several lines', () => {
    const cells = ['=1+1', '+1', '-1', '@a', '=1\nsecond line', ' \t=1', '\n=1', '＝1', '\r=1'];
    const [header, ...read] = Papa.parse<string[]>(
      toCsv(
        cells.map((a) => ({ a })),
        ['a'],
      ).trimEnd(),
    ).data;
    expect(header).toEqual(['a']);
    expect(read.map(([cell]) => cell)).toEqual(cells.map((cell) => `'${cell}`));
  });

  it('come back as they were, but for that quote (RFC 4180)', () => {
    fc.assert(
      fc.property(fc.array(fc.record({ a: fc.string({ minLength: 1 }), b: fc.string() })), (rows) => {
        const { data } = Papa.parse<{ a: string; b: string }>(toCsv(rows, ['a', 'b']), {
          ...{ header: true, skipEmptyLines: true, newline: '\r\n' },
        });
        const bare = (text: string) => text.replace(/^'/, '');
        expect(data.map(({ a, b }) => [bare(a), bare(b)])).toEqual(
          rows.map(({ a, b }) => [bare(a), bare(b)]),
        );
      }),
    );
  });
});
