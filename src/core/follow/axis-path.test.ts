import fc from 'fast-check';
import { highsSolver, otherSolver } from '../../../tests/lp-solvers';
import { axisPath, axisProgram, type AxisTask, stillPlace } from './axis-path';
import type { LinearProgram, SolveProgram } from './linear-program';

let solve: SolveProgram;
beforeAll(async () => {
  solve = await highsSolver();
});

/** A subject's middles, step by step, in a window of a third of the width. */
function taskOf(middles: readonly (number | null)[], more: Partial<AxisTask> = {}): AxisTask {
  return {
    size: middles.map(() => 0.32),
    keep: middles.map((middle) => (middle === null ? null : { from: middle - 0.05, to: middle + 0.05 })),
    inner: 0.8,
    target: middles,
    pull: 0.05,
    prices: [10, 1, 100],
    pins: [],
    ...more,
  };
}
const steps = (count: number, at: (step: number) => number): number[] =>
  Array.from({ length: count }, (_, step) => at(step));
const costOf = ({ cost }: LinearProgram, values: readonly number[]): number =>
  values.reduce((sum, value, i) => sum + value * (cost[i] as number), 0);
const outside = ({ keep, size, inner }: AxisTask, path: readonly number[]): number =>
  path.filter((middle, step) => {
    const kept = keep[step];
    const half = ((size[step] as number) * inner) / 2;
    return kept && (kept.from < middle - half - 1e-6 || kept.to > middle + half + 1e-6);
  }).length;

describe('the path of a window along one axis', () => {
  it('stays where one place serves, in the middle of where the subject is', () => {
    const task = taskOf(steps(50, (step) => 0.5 + 0.03 * Math.sin(step)));
    expect(new Set(axisPath(task, solve)).size).toBe(1);
    expect(stillPlace(task)).toBeCloseTo(0.5, 2);
  });

  it('is the ramp itself for a subject at even speed that is followed closely', () => {
    // Closed form: a straight line has no second and third difference, and lies on its target everywhere.
    const ramp = steps(60, (step) => 0.2 + 0.01 * step);
    const path = axisPath(taskOf(ramp, { pull: 50, inner: 0.4 }), solve);
    path.forEach((middle, step) => expect(middle).toBeCloseTo(ramp[step] as number, 6));
  });

  it('goes from one place to the other and never back, for a subject that steps aside', () => {
    const task = taskOf(steps(60, (step) => 0.3 + 0.4 * Math.min(1, Math.max(0, (step - 25) / 10))));
    const path = axisPath(task, solve);
    for (let step = 1; step < 60; step++)
      expect(path[step] as number).toBeGreaterThanOrEqual((path[step - 1] as number) - 1e-6);
    expect(outside(task, path)).toBe(0);
  });

  it('costs what another solver finds', () => {
    const places = fc.array(fc.double({ min: 0.1, max: 0.9, noNaN: true }), { minLength: 4, maxLength: 9 });
    fc.assert(
      fc.property(places, fc.double({ min: 0, max: 2, noNaN: true }), (middles, pull) => {
        const program = axisProgram(taskOf(middles, { pull }));
        expect(costOf(program, solve(program))).toBeCloseTo(costOf(program, otherSolver(program)), 4);
      }),
      { numRuns: 40 },
    );
  });

  const walks = fc
    .array(fc.double({ min: -0.05, max: 0.05, noNaN: true }), { minLength: 8, maxLength: 40 })
    .map((moves) => {
      let place = 0.5;
      return moves.map((move) => (place = Math.min(1, Math.max(0, place + move))));
    });

  it('never leaves the live area, and holds to its pins', () => {
    const pin = fc.record({
      share: fc.double({ min: 0, max: 1, noNaN: true }),
      middle: fc.double({ min: 0, max: 1, noNaN: true }),
    });
    fc.assert(
      fc.property(walks, fc.array(pin, { maxLength: 3 }), (middles, pins) => {
        const placed = pins.map(({ share, middle }) => ({
          step: Math.round(share * (middles.length - 1)),
          middle: 0.16 + middle * 0.68,
        }));
        const path = axisPath(taskOf(middles, { pins: placed }), solve);
        for (const middle of path) {
          expect(middle).toBeGreaterThanOrEqual(0.16 - 1e-9);
          expect(middle).toBeLessThanOrEqual(0.84 + 1e-9);
        }
        const known = new Set<number>();
        for (const { step, middle } of placed) {
          if (!known.has(step)) expect(Math.abs((path[step] as number) - middle)).toBeLessThan(1e-6);
          known.add(step);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('is reversed when time is', () => {
    fc.assert(
      fc.property(walks, (middles) => {
        const path = axisPath(taskOf(middles), solve);
        const back = axisPath(taskOf([...middles].reverse()), solve).reverse();
        path.forEach((middle, step) => expect(middle).toBeCloseTo(back[step] as number, 6));
      }),
      { numRuns: 20 },
    );
  });

  it('lets an outlier of one step go', () => {
    const middles = steps(40, (step) => (step === 20 ? 0.9 : 0.5));
    const path = axisPath(taskOf(middles), solve);
    expect(Math.max(...path) - Math.min(...path)).toBeLessThan(0.05);
    expect(outside(taskOf(middles), path)).toBe(1);
  });

  it('shows as much as it can of what is larger than the window', () => {
    const wide = taskOf(
      steps(10, () => 0.5),
      { keep: steps(10, () => 0).map(() => ({ from: 0.2, to: 0.8 })) },
    );
    expect(stillPlace(wide)).toBeCloseTo(0.5, 6);
  });

  it('has nothing to say where the window takes all of the live area', () => {
    const whole = taskOf(
      steps(5, (step) => 0.2 * step),
      { size: steps(5, () => 1) },
    );
    expect(axisPath(whole, solve)).toEqual([0.5, 0.5, 0.5, 0.5, 0.5]);
  });
});
