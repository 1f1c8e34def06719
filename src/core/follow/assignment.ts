/**
 * The cheapest way to give every row a column of its own, by shortest augmenting paths.
 *
 * Source: the Hungarian method with potentials; H. W. Kuhn, "The Hungarian method for the assignment problem", Naval
 * Research Logistics Quarterly 2, 1955; O(n³).
 *
 * @param cost by row and column; Infinity where the two must not come together.
 * @returns the column of each row, −1 for a row that is left alone: as many as can be are given one.
 */
export function assignRows(cost: readonly (readonly number[])[]): number[] {
  const rows = cost.length;
  const columns = Math.max(0, ...cost.map((row) => row.length));
  const size = Math.max(rows, columns);
  if (rows === 0 || columns === 0) return Array<number>(rows).fill(-1);
  // What must not be costs more than everything else together, so that it is only taken where nothing else is left.
  const finite = cost.flatMap((row) => row.filter(Number.isFinite));
  const forbidden = 1 + 2 * size * (Math.max(0, ...finite) - Math.min(0, ...finite));
  const getPrice = (row: number, column: number): number => {
    const price = cost[row]?.[column] ?? forbidden;
    return Number.isFinite(price) ? price : forbidden;
  };
  const rowOf = cheapest(size, getPrice);
  const columnOf = Array<number>(rows).fill(-1);
  rowOf.forEach((row, column) => {
    if (row < rows && Number.isFinite(cost[row]?.[column] ?? Infinity)) columnOf[row] = column;
  });
  return columnOf;
}

/** The row of each column in the cheapest assignment of a square table. */
function cheapest(size: number, priceOf: (row: number, column: number) => number): number[] {
  const rowPrice = new Float64Array(size + 1);
  const columnPrice = new Float64Array(size + 1);
  // Column `size` stands for no column: the row that is being placed waits there.
  const rowOf = new Int32Array(size + 1).fill(-1);
  for (let row = 0; row < size; row++) {
    rowOf[size] = row;
    const least = new Float64Array(size).fill(Infinity);
    const cameFrom = new Int32Array(size).fill(size);
    const used = new Uint8Array(size + 1);
    let column = size;
    do {
      used[column] = 1;
      const at = rowOf[column] as number;
      let step = Infinity;
      let next = size;
      for (let to = 0; to < size; to++) {
        if (used[to]) continue;
        const reduced = priceOf(at, to) - (rowPrice[at] as number) - (columnPrice[to] as number);
        if (reduced < (least[to] as number)) {
          least[to] = reduced;
          cameFrom[to] = column;
        }
        if ((least[to] as number) < step) {
          step = least[to] as number;
          next = to;
        }
      }
      for (let to = 0; to <= size; to++) {
        if (used[to]) {
          const held = rowOf[to] as number;
          rowPrice[held] = (rowPrice[held] as number) + step;
          columnPrice[to] = (columnPrice[to] as number) - step;
        } else if (to < size) least[to] = (least[to] as number) - step;
      }
      column = next;
    } while (rowOf[column] !== -1);
    while (column !== size) {
      const from = cameFrom[column] as number;
      rowOf[column] = rowOf[from] as number;
      column = from;
    }
  }
  return Array.from(rowOf.subarray(0, size));
}
