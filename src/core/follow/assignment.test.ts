import fc from 'fast-check';
import { assignRows } from './assignment';

/** The least cost of giving as many rows as can be a column, by trying all ways. */
function bestByTrying(cost: number[][]): { count: number; total: number } {
  const columns = cost[0]?.length ?? 0;
  const go = (row: number, taken: number): { count: number; total: number } => {
    if (row === cost.length) return { count: 0, total: 0 };
    let best = go(row + 1, taken);
    for (let column = 0; column < columns; column++) {
      const price = cost[row]?.[column] as number;
      if (taken & (1 << column) || !Number.isFinite(price)) continue;
      const rest = go(row + 1, taken | (1 << column));
      const with_ = { count: rest.count + 1, total: rest.total + price };
      if (with_.count > best.count || (with_.count === best.count && with_.total < best.total)) best = with_;
    }
    return best;
  };
  return go(0, 0);
}

describe('the cheapest assignment', () => {
  it('is that of a worked example', () => {
    // From memory, common textbook example: 4 workers, 4 jobs, least total 140.
    const cost = [
      [82, 83, 69, 92],
      [77, 37, 49, 92],
      [11, 69, 5, 86],
      [8, 9, 98, 23],
    ];
    expect(assignRows(cost)).toEqual([2, 1, 0, 3]);
  });

  it('is the best of all, for any table, also with pairs that must not be', () => {
    const price = fc.oneof({ weight: 4, arbitrary: fc.integer({ min: 0, max: 50 }) }, fc.constant(Infinity));
    const table = fc
      .tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 1, max: 5 }))
      .chain(([rows, columns]) =>
        fc.array(fc.array(price, { minLength: columns, maxLength: columns }), {
          minLength: rows,
          maxLength: rows,
        }),
      );
    fc.assert(
      fc.property(table, (cost) => {
        const found = assignRows(cost);
        const used = found.filter((column) => column >= 0);
        expect(new Set(used).size).toBe(used.length);
        const total = found.reduce(
          (sum, column, row) => sum + (column < 0 ? 0 : (cost[row]?.[column] as number)),
          0,
        );
        expect({ count: used.length, total }).toEqual(bestByTrying(cost));
      }),
    );
  });

  it('leaves rows alone where there is no column', () => {
    expect(assignRows([])).toEqual([]);
    expect(assignRows([[], []])).toEqual([-1, -1]);
    expect(assignRows([[Infinity], [3]])).toEqual([-1, 0]);
  });
});
