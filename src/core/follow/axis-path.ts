import { computeMedian } from '../figures/median';
import { clamp } from '../picture/size';
import { type LinearProgram, computePrice, type SolveProgram, variable } from './linear-program';

/** Where a window's middle has to go along one axis, step by step of even time; lengths are 0…1 of the live area. */
export interface AxisTask {
  /** Extent of the window. */
  size: readonly number[];
  /** Interval that must stay inside the window's inner part at each step; null where there is none. */
  keep: readonly ({ from: number; to: number } | null)[];
  /** The inner part, as a share of the window, 0…1. */
  inner: number;
  /** Where the middle would be best; null where nothing says so. */
  target: readonly (number | null)[];
  /** Cost of one unit of distance from there at each step. */
  pull: number;
  /** Cost of a unit of the first, second and third difference: speed, acceleration and jerk. */
  prices: readonly [number, number, number];
  /** Where the middle has to be at a step. */
  pins: readonly { step: number; middle: number }[];
}

/** Cost of a unit outside the inner part at each step: much, so that it is only paid for an outlier. */
const OUTSIDE = 60;
/** Below this, 0…1 of the live area, nobody sees that two places differ. */
const EQUAL = 1e-9;

interface Bounds {
  least: number;
  most: number;
}

/** Where the middle may be: the window stays inside the live area. */
const toBounds = (size: number): Bounds =>
  size >= 1 ? { least: 0.5, most: 0.5 } : { least: size / 2, most: 1 - size / 2 };

/** Where the middle has to be for what must stay inside; what is larger than the inner part shows as much as it can. */
function heldBounds({ size, keep, inner }: AxisTask, step: number): Bounds | null {
  const kept = keep[step];
  if (!kept) return null;
  const half = ((size[step] as number) * inner) / 2;
  const [a, b] = [kept.to - half, kept.from + half];
  const { least, most } = toBounds(size[step] as number);
  const clampValue = (value: number) => clamp(value, least, most);
  return { least: clampValue(Math.min(a, b)), most: clampValue(Math.max(a, b)) };
}

const listPins = ({ size, pins }: AxisTask): { step: number; middle: number }[] => {
  const first = pins.filter(({ step }, i) => pins.findIndex((other) => other.step === step) === i);
  return first.map(({ step, middle }) => {
    const { least, most } = toBounds(size[step] as number);
    return { step, middle: clamp(middle, least, most) };
  });
};

/**
 * The one place that serves every step, the nearest to where the middle would be best; null where there is none.
 */
export function stillPlace(task: AxisTask): number | null {
  let [least, most] = [0, 1];
  for (let step = 0; step < task.size.length; step++) {
    const held = heldBounds(task, step) ?? toBounds(task.size[step] as number);
    least = Math.max(least, held.least);
    most = Math.min(most, held.most);
  }
  for (const { middle } of listPins(task)) {
    least = Math.max(least, middle);
    most = Math.min(most, middle);
  }
  if (least > most + EQUAL) return null;
  const best = task.target.filter((target) => target !== null);
  return clamp(best.length > 0 ? computeMedian(best) : 0.5, least, Math.max(least, most));
}

/**
 * The program whose first variables are the window's middle at each step.
 *
 * Source: M. Grundmann, V. Kwatra, I. Essa, "Auto-directed video stabilization with robust L1 optimal camera paths",
 * CVPR 2011: weighted absolute first, second and third differences, inclusion as rows, with slack that has a price.
 */
export function axisProgram(task: AxisTask): LinearProgram {
  const program: LinearProgram = { cost: [], least: [], most: [], rows: [] };
  const steps = task.size.length;
  const pins = new Map(listPins(task).map(({ step, middle }) => [step, middle]));
  for (let step = 0; step < steps; step++) {
    const pin = pins.get(step);
    const { least, most } =
      pin === undefined ? toBounds(task.size[step] as number) : { least: pin, most: pin };
    variable(program, 0, least, most);
  }
  const differences: number[][] = [
    [-1, 1],
    [1, -2, 1],
    [-1, 3, -3, 1],
  ];
  differences.forEach((factors, order) => {
    for (let step = 0; step + factors.length <= steps; step++) {
      const terms = factors.map((factor, i): [number, number] => [step + i, factor]);
      computePrice(program, terms, 0, task.prices[order] as number);
    }
  });
  for (let step = 0; step < steps; step++) {
    const held = heldBounds(task, step);
    if (held) {
      const [under, over] = [variable(program, OUTSIDE), variable(program, OUTSIDE)];
      program.rows.push({
        terms: [
          [step, 1],
          [under, 1],
        ],
        least: held.least,
        most: Infinity,
      });
      program.rows.push({
        terms: [
          [step, 1],
          [over, -1],
        ],
        least: -Infinity,
        most: held.most,
      });
    }
    const target = task.target[step];
    if (target !== null && target !== undefined && task.pull > 0)
      computePrice(program, [[step, 1]], target, task.pull);
  }
  return program;
}

const reverseTask = (task: AxisTask): AxisTask => ({
  ...task,
  size: [...task.size].reverse(),
  keep: [...task.keep].reverse(),
  target: [...task.target].reverse(),
  pins: task.pins.map(({ step, middle }) => ({ step: task.size.length - 1 - step, middle })),
});

/** A program of more steps is solved in pieces, each of which goes on from where the one before is this far on. */
const MAX_STEPS = 600;
const KEPT_STEPS = 500;

function inPieces(task: AxisTask, solve: SolveProgram): number[] {
  const path: number[] = [];
  for (let from = 0; ; from += KEPT_STEPS) {
    const to = Math.min(task.size.length, from + MAX_STEPS);
    const last = to === task.size.length;
    // Three places fix how fast it goes, and how that changes.
    const joins = path.slice(-3).map((middle, i, all) => ({ step: from - all.length + i, middle }));
    const first = from - joins.length;
    const solved = solve(axisProgram(piece(task, first, to, joins))).slice(joins.length);
    path.push(...solved.slice(0, last ? to - from : KEPT_STEPS));
    if (last) return path;
  }
}

const piece = (task: AxisTask, from: number, to: number, joins: AxisTask['pins']): AxisTask => ({
  ...task,
  size: task.size.slice(from, to),
  keep: task.keep.slice(from, to),
  target: task.target.slice(from, to),
  pins: [...joins, ...task.pins]
    .filter(({ step }) => step >= from && step < to)
    .map(({ step, middle }) => ({ step: step - from, middle })),
});

/**
 * The window's middle at each step: one place where that serves, else the smoothest path. Of the many paths that cost
 * the same a solver gives any; the mean of the ways forward and backward costs as much, and does not know which way
 * time runs.
 */
export function axisPath(task: AxisTask, solve: SolveProgram): number[] {
  const steps = task.size.length;
  const still = stillPlace(task);
  if (still !== null) return Array<number>(steps).fill(still);
  const forward = inPieces(task, solve);
  const backward = inPieces(reverseTask(task), solve).reverse();
  return forward.map((middle, step) => {
    const { least, most } = toBounds(task.size[step] as number);
    return clamp((middle + (backward[step] as number)) / 2, least, most);
  });
}
