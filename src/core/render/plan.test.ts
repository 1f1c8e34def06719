import { parseFingerprint } from '../master/fingerprint';
import fc from 'fast-check';
import { plainFraming } from '../framing/framing';
import { makeCanvas } from '../layout/canvas';
import { computeCoverage } from '../proof/coverage';
import { fitPixels } from '../layout/layout';
import { MAIN_TRACK } from '../layout/pane';
import { toSource } from '../master/source';
import { testMaster, testRange, testShot } from '../job/test-job';
import { rateValue, STANDARD_RATES } from '../time/frame-rate';
import { plannedFrame, createRenderPlan, planRuns, findSegment } from './plan';
import { costWords, rateCost } from './rate-cost';

const FILM = { num: 24000, den: 1001 };
const source = toSource(testMaster());
const sources = [source];
const tall = makeCanvas('verrow/short', { width: 1080, height: 1920 }, FILM, 'canvas-1');
const shots = [testShot('a', 0, 100), testShot('b', 100, 984)];

describe('plan', () => {
  it('shows exactly the master frames of the cut, in order, each in its shot', () => {
    fc.assert(
      fc.property(fc.nat(249), fc.nat(249), (a, b) => {
        const range = testRange(Math.min(a, b), Math.max(a, b) + 1);
        const plan = createRenderPlan(tall, { cut: [range], shots, framings: [], sources });
        expect(plan.frames).toBe(range.out - range.in);
        for (let n = 0; n < plan.frames; n++) {
          const { masterFrame } = plannedFrame(plan, n);
          expect(masterFrame).toBe(range.in + n);
          expect(findSegment(plan, n).shot).toBe(masterFrame < 100 ? 'a' : 'b');
        }
        const { in: first, out } = range;
        const run = { source: 0, start: 0, frames: out - first, in: first, out, rangeOut: out };
        expect(planRuns(plan)).toEqual([run]);
      }),
      { numRuns: 25 },
    );
  });

  it('is one run of sound where a range was only split, at any pair of rates', () => {
    const rates = fc.constantFrom(...STANDARD_RATES);
    const splits = fc.uniqueArray(fc.integer({ min: 1, max: 983 }), { maxLength: 8 });
    fc.assert(
      fc.property(rates, rates, splits, (own, rate, at) => {
        const edges = [0, ...at.sort((a, b) => a - b), 984];
        const cut = edges.slice(1).map((out, n) => testRange(edges[n]!, out));
        const paced = toSource(testMaster({ rate: own }));
        const plan = createRenderPlan({ ...tall, rate }, { cut, shots, framings: [], sources: [paced] });
        expect(planRuns(plan)).toMatchObject([
          { source: 0, start: 0, frames: plan.frames, in: 0, rangeOut: 984 },
        ]);
        // Picture and sound are less than a frame of either apart.
        for (const segment of plan.segments) {
          const heard = segment.start / rateValue(rate);
          const seen =
            segment.rangeIn / rateValue(own) + (segment.start - segment.rangeStart) / rateValue(rate);
          expect(Math.abs(seen - heard)).toBeLessThan(1 / rateValue(own) + 1 / rateValue(rate));
        }
      }),
    );
  });

  it('plays several ranges one after another', () => {
    const plan = createRenderPlan(tall, {
      cut: [testRange(200, 210), testRange(5, 8)],
      shots,
      framings: [],
      sources,
    });
    expect(Array.from({ length: plan.frames }, (_, n) => plannedFrame(plan, n).masterFrame)).toEqual([
      200, 201, 202, 203, 204, 205, 206, 207, 208, 209, 5, 6, 7,
    ]);
    expect(() => plannedFrame(plan, 13)).toThrow(RangeError);
  });

  it('gives each shot its own framing', () => {
    const framing = plainFraming('b', MAIN_TRACK, 100);
    const right = { ...framing, keyframes: [{ ...framing.keyframes[0]!, focus: { x: 0.9, y: 0.5 } }] };
    const plan = createRenderPlan(tall, { cut: [testRange(0, 250)], shots, framings: [right], sources });
    const x = (n: number) => plannedFrame(plan, n).panes[0]?.window.x ?? -1;
    expect(x(99) * 1920).toBeCloseTo(656.25, 6);
    expect(x(100)).toBeCloseTo(1 - 607.5 / 1920, 9);
  });
});

describe('another rate than the master has', () => {
  const canvas = (num: number, den: number) => ({ ...tall, rate: { num, den } });
  const input = { cut: [testRange(10, 110)], shots, framings: [], sources };

  it('shows the frame that is on screen at each moment, and tells what that costs', () => {
    const fast = createRenderPlan(canvas(48000, 1001), input);
    expect(fast.frames).toBe(200);
    expect([0, 1, 2, 199].map((n) => plannedFrame(fast, n).masterFrame)).toEqual([10, 10, 11, 109]);
    expect(rateCost(fast)).toEqual({
      repeated: Array.from({ length: 100 }, (_, i) => 2 * i + 1),
      vanished: [],
    });
    expect(costWords(fast)).toBe('100 frames of the clip repeat (1, 3, 5, 7 and 96 more, every 2 frames)');
    const slow = createRenderPlan(canvas(12000, 1001), input);
    expect([0, 1, 49].map((n) => plannedFrame(slow, n).masterFrame)).toEqual([10, 12, 108]);
    expect(rateCost(slow)).toEqual({
      repeated: [],
      vanished: Array.from({ length: 50 }, (_, i) => 11 + 2 * i),
    });
    expect(costWords(createRenderPlan(tall, input))).toBe('every frame once');
  });

  it('counts the frames that are lost at the end of a range too', () => {
    const sixty = { ...sources[0]!, rate: { num: 60, den: 1 } };
    const five = { ...input, cut: [testRange(0, 5)], sources: [sixty] };
    // 60 to 24: frames 0 and 2 show.
    expect(rateCost(createRenderPlan(canvas(24, 1), five))).toEqual({ repeated: [], vanished: [1, 3, 4] });
  });

  it('agrees with counting by time, and never leaves the range, at any standard rate', () => {
    const rates = fc.constantFrom([24, 1], [25, 1], [30000, 1001], [30, 1], [50, 1], [60000, 1001]);
    fc.assert(
      fc.property(rates, fc.nat(900), fc.integer({ min: 1, max: 83 }), ([num, den], first, length) => {
        const range = testRange(first, first + length);
        const plan = createRenderPlan(canvas(num!, den!), { ...input, cut: [range] });
        const ratio = (24000 * den!) / (1001 * num!);
        let before = -1;
        for (let n = 0; n < plan.frames; n++) {
          const { masterFrame } = plannedFrame(plan, n);
          expect(masterFrame).toBe(first + Math.floor(n * ratio + 1e-9));
          expect(masterFrame).toBeLessThan(range.out);
          expect(masterFrame).toBeGreaterThanOrEqual(before);
          before = masterFrame;
        }
        const runs = planRuns(plan);
        expect(runs.reduce((sum, run) => sum + run.frames, 0)).toBe(plan.frames);
      }),
      { numRuns: 60 },
    );
  });
});

describe('several masters', () => {
  const other = toSource(
    testMaster({
      id: 'other',
      fingerprint: parseFingerprint('b'.repeat(64)),
      picture: { width: 1280, height: 720 },
      rate: { num: 25, den: 1 },
    }),
  );
  const plan = createRenderPlan(tall, {
    cut: [testRange(0, 24), { master: 'other', in: 50, out: 75 }, testRange(24, 48)],
    shots: [],
    framings: [],
    sources: [source, other],
  });

  it('play one after another, each at its own rate and size', () => {
    // 25 frames at 25 fps last one second: 23.976 frames, so 24.
    expect(plan.frames).toBe(72);
    expect(planRuns(plan).map(({ source: index, start, frames }) => [index, start, frames])).toEqual([
      [0, 0, 24],
      [1, 24, 24],
      [0, 48, 24],
    ]);
    expect(plannedFrame(plan, 25)).toMatchObject({ source: 1, masterFrame: 51, liveSize: { width: 1280 } });
    expect(computeCoverage(plan).covered).toBe(true);
  });

  it('must be known', () => {
    const cut = [{ master: 'unknown', in: 0, out: 1 }];
    expect(() => createRenderPlan(tall, { cut, shots, framings: [], sources })).toThrow(RangeError);
  });
});

describe('a live area', () => {
  const live = { x: 0, y: 0.125, width: 1, height: 0.75 };
  const boxed = { ...source, live };

  it('holds every window inside it', () => {
    const plan = createRenderPlan(tall, {
      cut: [testRange(0, 10)],
      shots: [],
      framings: [],
      sources: [boxed],
    });
    const [pane] = plannedFrame(plan, 0).panes;
    expect(pane!.framed).toMatchObject({ y: 0, height: 1 });
    expect(pane!.window).toMatchObject({ y: 0.125, height: 0.75 });
    // 810 live rows of 1920×1080: the widest 9:16 window is 455.6 pixels wide.
    expect(pane!.window.width * 1920).toBeCloseTo((810 * 9) / 16, 6);
  });

  it('of a shot comes before that of its master', () => {
    const own = { ...testShot('a', 0, 984), live: { x: 0.25, y: 0, width: 0.5, height: 1 } };
    const plan = createRenderPlan(tall, {
      cut: [testRange(0, 10)],
      shots: [own],
      framings: [],
      sources: [boxed],
    });
    expect(plannedFrame(plan, 0).liveSize).toEqual({ width: 960, height: 1080 });
  });
});

describe('a fitted picture', () => {
  // Fitted 1080 wide, 1920×1080 is reduced to 56.25 % (1080/1920), so 607.5 rows, 608 on even pixels.
  it('fits at 56.25 %', () => {
    const pane = { x: 0, y: 0, width: 1080, height: 1920 };
    expect(fitPixels(pane, 16 / 9)).toEqual({ x: 0, y: 656, width: 1080, height: 608 });
  });
});
