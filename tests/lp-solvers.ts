import loadHighs from 'highs';
import lpSolver from 'javascript-lp-solver';
import {
  type LinearProgram,
  programText,
  type SolveProgram,
  readValues,
} from '../src/core/follow/linear-program';

/** HiGHS, as the app's worker uses it. */
export async function highsSolver(): Promise<SolveProgram> {
  const highs = await loadHighs();
  return (program) => {
    const { Status, Columns } = highs.solve(programText(program));
    if (Status !== 'Optimal') throw new Error(`no solution: ${Status}`);
    return readValues(program, (name) => Columns[name]?.Primal);
  };
}

interface SolverModel {
  optimize: string;
  opType: 'min';
  constraints: Record<string, { min?: number; max?: number; equal?: number }>;
  variables: Record<string, Record<string, number>>;
}

/** Another solver, a simplex in JavaScript, for small programs whose variables are not negative. */
export const otherSolver: SolveProgram = (program: LinearProgram) => {
  const model: SolverModel = { optimize: 'cost', opType: 'min', constraints: {}, variables: {} };
  const of = (i: number) => (model.variables[`x${i}`] ??= { cost: program.cost[i] as number });
  program.rows.forEach(({ terms, least, most }, row) => {
    model.constraints[`r${row}`] =
      least === most
        ? { equal: least }
        : { ...(least > -Infinity && { min: least }), ...(most < Infinity && { max: most }) };
    for (const [i, factor] of terms) of(i)[`r${row}`] = factor;
  });
  program.cost.forEach((_, i) => {
    const [least, most] = [program.least[i] as number, program.most[i] as number];
    if (least < 0) throw new RangeError('a variable may be negative');
    if (least === 0 && most === Infinity) return;
    model.constraints[`b${i}`] = { min: least, ...(most < Infinity && { max: most }) };
    of(i)[`b${i}`] = 1;
  });
  const solution = lpSolver.Solve(model) as unknown as Record<string, number> & { feasible: boolean };
  if (!solution.feasible) throw new Error('no solution');
  return program.cost.map((_, i) => solution[`x${i}`] ?? 0);
};
