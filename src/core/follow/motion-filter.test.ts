import {
  createState,
  correctState,
  predictState,
  smoothSteps,
  type State,
  type FilterStep,
} from './motion-filter';

/** Filters measurements that come every so many frames; null where nothing was measured. */
function filtered(
  measured: readonly (number | null)[],
  noise: number,
  shake: number,
  every = 1,
): FilterStep[] {
  const steps: FilterStep[] = [];
  let state: State | null = null;
  measured.forEach((value, i) => {
    if (!state && value === null) return;
    const before: State = state ? predictState(state, every, shake) : createState(value as number, noise, 1);
    const after: State = value === null || !state ? before : correctState(before, value, noise);
    steps.push({ frame: i * every, before, after });
    state = after;
  });
  return steps;
}

describe('a filter of what moves at about constant speed', () => {
  it('finds the speed of an even motion, and goes on through a gap', () => {
    const truth = Array.from({ length: 40 }, (_, i) => 3 + 0.5 * i);
    const steps = filtered(
      truth.map((value, i) => (i >= 20 && i < 30 ? null : value)),
      0.1,
      1e-8,
    );
    expect(steps[29]?.after.place).toBeCloseTo(truth[29] as number, 2);
    expect(steps[39]?.after.speed).toBeCloseTo(0.5, 3);
  });

  it('gives, at one measurement, the mean weighted by certainty', () => {
    // Closed form: two Gaussians of variances 4 and 1 at 0 and 5 have their mean at 4, variance 0.8.
    const after = correctState({ place: 0, speed: 0, pp: 4, ps: 0, ss: 0 }, 5, 1);
    expect(after.place).toBeCloseTo(4, 12);
    expect(after.pp).toBeCloseTo(0.8, 12);
  });

  it('smooths without lagging: an even motion with noise, judged by least squares', () => {
    let seed = 7;
    const noise = () => ((seed = (seed * 16807) % 2147483647) / 2147483647 - 0.5) * 2;
    const measured = Array.from({ length: 60 }, (_, i) => 0.2 * i + noise());
    const smooth = smoothSteps(filtered(measured, 0.6, 1e-10));
    // With no shake at all the smoother is the straight line of least squares, but for its weak first guess.
    const n = measured.length;
    const mean = measured.reduce((sum, value) => sum + value, 0) / n;
    const middle = (n - 1) / 2;
    const slope =
      measured.reduce((sum, value, i) => sum + (i - middle) * (value - mean), 0) / ((n * (n * n - 1)) / 12);
    for (const i of [0, 20, 40, 59])
      expect(Math.abs((smooth[i] as number) - (mean + slope * (i - middle)))).toBeLessThan(0.12);
  });

  it('has nothing to smooth where nothing was measured', () => {
    expect(smoothSteps([])).toEqual([]);
  });
});
