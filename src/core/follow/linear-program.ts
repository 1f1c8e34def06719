/** A linear program: the least sum of cost times value, within bounds and rows. */
export interface LinearProgram {
  /** By variable. Infinite where there is no bound. */
  cost: number[];
  least: number[];
  most: number[];
  rows: Row[];
}

/** Row of the program: bounds of a sum of variables, each times a factor. */
export interface Row {
  terms: [variable: number, factor: number][];
  least: number;
  most: number;
}

/** Finds the values of a program's variables. @throws Error for one that has no solution. */
export type SolveProgram = (program: LinearProgram) => number[];

/** Adds a variable. @returns its number. */
export function variable(program: LinearProgram, cost: number, least = 0, most = Infinity): number {
  program.cost.push(cost);
  program.least.push(least);
  program.most.push(most);
  return program.cost.length - 1;
}

/** Adds the price of a sum's distance from zero, in either direction. */
export function computePrice(program: LinearProgram, terms: Row['terms'], from: number, price: number): void {
  const over = variable(program, price);
  const under = variable(program, price);
  program.rows.push({ terms: [...terms, [over, -1], [under, 1]], least: from, most: from });
}

const toName = (index: number): string => `x${index}`;
const numberText = (value: number): string => {
  if (value === Infinity) return '+inf';
  if (value === -Infinity) return '-inf';
  return String(value);
};
const sumText = (terms: Row['terms']): string =>
  terms.map(([index, factor]) => `${factor < 0 ? '-' : '+'} ${Math.abs(factor)} ${toName(index)}`).join(' ');

/** A program in the LP format that solvers read (CPLEX LP: objective, rows, bounds). */
export function programText({ cost, least, most, rows }: LinearProgram): string {
  const objective = cost.flatMap((price, i): Row['terms'] => (price === 0 ? [] : [[i, price]]));
  const rowTexts = rows.flatMap(({ terms, least: low, most: high }) => {
    const sum = sumText(terms);
    if (low === high) return [`${sum} = ${low}`];
    return [
      ...(low > -Infinity ? [`${sum} >= ${low}`] : []),
      ...(high < Infinity ? [`${sum} <= ${high}`] : []),
    ];
  });
  return [
    'Minimize',
    sumText(objective) || `+ 0 ${toName(0)}`,
    'Subject To',
    ...rowTexts,
    'Bounds',
    ...cost.map(
      (_, i) => `${numberText(least[i] as number)} <= ${toName(i)} <= ${numberText(most[i] as number)}`,
    ),
    'End',
  ].join('\n');
}

/** The values of a program's variables, from a solver that tells them by their names. */
export const readValues = (
  { cost }: LinearProgram,
  valueOf: (name: string) => number | undefined,
): number[] =>
  cost.map((_, i) => {
    const value = valueOf(toName(i));
    if (value === undefined) throw new Error(`the solver tells no value of ${toName(i)}`);
    return value;
  });
