import fc from 'fast-check';
import { toSource } from '../master/source';
import { makeCanvas } from '../layout/canvas';
import { testMaster, TEST_MASTER, testRange } from '../job/test-job';
import { decodeRuns } from './decode-runs';
import { plannedFrame, createRenderPlan, findSegment } from './plan';

const source = toSource(testMaster());
const other = { ...source, id: 'other' };
const RATES = [
  [24000, 1001],
  [25, 1],
  [30, 1],
  [60, 1],
  [12, 1],
] as const;
const planAt = (rate: readonly [number, number], cut: { master: string; in: number; out: number }[]) =>
  createRenderPlan(makeCanvas(null, { width: 720, height: 1280 }, { num: rate[0], den: rate[1] }, 'c'), {
    cut,
    shots: [],
    framings: [],
    sources: [source, other],
  });

describe('what is decoded for several canvases', () => {
  it('is each master frame once, where ranges go on', () => {
    const cut = [testRange(0, 24), testRange(24, 48), { master: 'other', in: 10, out: 20 }, testRange(5, 9)];
    const runs = decodeRuns([planAt(RATES[0], cut), planAt(RATES[0], cut)]);
    expect(
      runs.map(({ source: index, in: first, out, lastRange }) => [index, first, out, lastRange]),
    ).toEqual([
      [0, 0, 48, 1],
      [1, 10, 20, 2],
      [0, 5, 9, 3],
    ]);
  });

  it('holds every frame of every plan in its order, at any rates', () => {
    const range = fc
      .tuple(fc.constantFrom(TEST_MASTER, 'other'), fc.nat(900), fc.integer({ min: 1, max: 40 }))
      .map(([master, first, long]) => ({ master, in: first, out: first + long }));
    fc.assert(
      fc.property(
        fc.array(range, { minLength: 1, maxLength: 5 }),
        fc.array(fc.constantFrom(...RATES), { minLength: 1, maxLength: 3 }),
        (cut, rates) => {
          const plans = rates.map((rate) => planAt(rate, cut)).filter((plan) => plan.frames > 0);
          const next = plans.map(() => 0);
          for (const run of decodeRuns(plans)) {
            for (let frame = run.in; frame < run.out; frame++) {
              plans.forEach((plan, i) => {
                for (let n = next[i] as number; n < plan.frames; n++) {
                  if (
                    findSegment(plan, n).range > run.lastRange ||
                    plannedFrame(plan, n).masterFrame !== frame
                  )
                    break;
                  expect(plannedFrame(plan, n).source).toBe(run.source);
                  next[i] = n + 1;
                }
              });
            }
          }
          expect(next).toEqual(plans.map((plan) => plan.frames));
        },
      ),
      { numRuns: 200 },
    );
  });

  it('must be of one cut', () => {
    const plans = [
      planAt(RATES[0], [testRange(0, 9)]),
      planAt(RATES[0], [{ master: 'other', in: 0, out: 9 }]),
    ];
    expect(() => decodeRuns(plans)).toThrow(RangeError);
  });
});
