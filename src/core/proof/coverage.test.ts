import fc from 'fast-check';
import { trials } from '../../../tests/soak';
import { easeSchema, EASES } from '../framing/easing';
import { type Framing, type Keyframe, plainFraming } from '../framing/framing';
import { computeMargin } from '../framing/moves';
import { toSource } from '../master/source';
import { plannedFrame, createRenderPlan, type RenderPlan } from '../render/plan';
import { testMaster, testRange, testShot } from '../job/test-job';
import { makeCanvas } from '../layout/canvas';
import { computeCoverage, isTiled } from './coverage';
import { type Layout, LAYOUTS, PLAIN_LAYOUT } from '../layout/layout';
import { MAIN_TRACK } from '../layout/pane';
import { computeSharedShare } from '../layout/overlap';

const FILM = { num: 24000, den: 1001 };
const sources = [toSource(testMaster())];
const shots = [testShot('a', 0, 100), testShot('b', 100, 984)];
const tall = makeCanvas('verrow/short', { width: 1080, height: 1920 }, FILM, 'canvas-1');
const fitted = shots.map((shot) => ({ ...plainFraming(shot.id, MAIN_TRACK, shot.in), fit: true }));
const layoutOf = (kind: Layout['kind']): Layout => ({ ...PLAIN_LAYOUT, kind });

const unit = fc.double({ min: 0, max: 1, noNaN: true });
const point = fc.record({ x: unit, y: unit });
const ease = fc.oneof(fc.constantFrom(...Object.values(EASES)), fc.tuple(unit, unit, unit, unit));
const keyframe = fc.record<Keyframe>({
  frame: fc.nat(99),
  focus: point,
  seat: point,
  zoom: fc.double({ min: 1, max: 4, noNaN: true }),
  tilt: fc.oneof(fc.constant(0), fc.double({ min: -45, max: 45, noNaN: true })),
  ease: ease.map((curve) => easeSchema.parse(curve)),
});
const framing = (track: string) =>
  fc
    .record({
      keys: fc.array(keyframe, { minLength: 1, maxLength: 6 }),
      turn: fc.constantFrom<Framing['turn'][]>(0, 90, 180, 270),
      fit: fc.boolean(),
    })
    .map(({ keys, turn, fit }): Framing => {
      const keyframes = [...new Map(keys.map((key) => [key.frame, key])).values()];
      return { shot: 'a', track, turn, fit, keyframes: keyframes.sort((a, b) => a.frame - b.frame) };
    });
const side = fc.integer({ min: 8, max: 960 }).map((half) => half * 2);

/** The least margin and the bare frames, by looking at every frame and every corner. */
function bruteForce(plan: RenderPlan): { least: number; bare: number } {
  let least = Infinity;
  let bare = 0;
  for (let n = 0; n < plan.frames; n++) {
    const { panes, liveSize } = plannedFrame(plan, n);
    const segment = plan.segments.find((segment) => n >= segment.start && n < segment.start + segment.frames);
    let outside = false;
    panes.forEach(({ framed }, i) => {
      if (!segment?.panes[i]?.framing) return;
      const { left, right, top, bottom } = computeMargin(framed, liveSize);
      least = Math.min(least, Math.max(Math.min(left, right), Math.min(top, bottom)));
      if (Math.min(left, right, top, bottom) < -1e-6) outside = true;
    });
    if (outside || !paintedWhole(plan, n)) bare += 1;
  }
  return { least, bare };
}

/** Tells whether every pixel of a frame is painted, on a grid of whole pixels of one in eight. */
function paintedWhole(plan: RenderPlan, n: number): boolean {
  if (plan.ground !== null) return true;
  const pictures = plannedFrame(plan, n).panes.filter((pane) => pane.radius === 0);
  const edges = (size: number) => [0, 1, Math.floor(size / 2), size - 2, size - 1];
  const xs = [
    ...edges(plan.width),
    ...pictures.flatMap(({ picture: r }) => [r.x - 1, r.x, r.x + r.width - 1, r.x + r.width]),
  ];
  const ys = [
    ...edges(plan.height),
    ...pictures.flatMap(({ picture: r }) => [r.y - 1, r.y, r.y + r.height - 1, r.y + r.height]),
  ];
  return ys.every((y) =>
    xs.every(
      (x) =>
        x < 0 ||
        y < 0 ||
        x >= plan.width ||
        y >= plan.height ||
        pictures.some(({ picture: r }) => x >= r.x && y >= r.y && x < r.x + r.width && y < r.y + r.height),
    ),
  );
}

describe('coverage', () => {
  const input = { cut: [testRange(0, 250)], shots, framings: [], sources };

  it('is whole when filled, with the margin of the widest window', () => {
    const found = computeCoverage(createRenderPlan(tall, input));
    expect(found).toMatchObject({ covered: true, bareFrames: 0, reason: null });
    expect(found.minMargin).toBeCloseTo(656.25, 6);
  });

  it('is broken by bars, and says in which shots', () => {
    const framings = [fitted[1] as Framing];
    expect(computeCoverage(createRenderPlan(tall, { ...input, framings }))).toMatchObject({
      covered: false,
      reason: 'bars',
      bareFrames: 150,
      bareShots: ['b'],
      shots: 2,
      worstFrame: 100,
    });
    for (const kind of ['banded', 'backdrop'] as const) {
      const plan = createRenderPlan({ ...tall, layout: layoutOf(kind) }, { ...input, framings });
      expect(computeCoverage(plan).covered).toBe(true);
    }
  });

  it('is whole when the fitted picture has the canvas ratio', () => {
    const wide = makeCanvas(null, { width: 1280, height: 720 }, FILM, 'canvas-1');
    expect(computeCoverage(createRenderPlan(wide, { ...input, framings: fitted })).covered).toBe(true);
  });

  it('agrees with looking at every frame of random framings, with tilt, turn, ease and panes', () => {
    const layout = fc.constantFrom(...LAYOUTS).map(layoutOf);
    fc.assert(
      fc.property(
        side,
        side,
        layout,
        fc.constantFrom({ num: 24000, den: 1001 }, { num: 60, den: 1 }, { num: 12, den: 1 }),
        fc.tuple(framing(MAIN_TRACK), framing('second')),
        (width, height, chosen, rate, framings) => {
          const canvas = { ...makeCanvas(null, { width, height }, rate, 'c'), layout: chosen };
          const plan = createRenderPlan(canvas, { ...input, framings });
          const found = computeCoverage(plan);
          const { least, bare } = bruteForce(plan);
          expect(found.bareFrames).toBe(bare);
          expect(found.covered).toBe(bare === 0);
          if (Number.isFinite(least)) expect(found.minMargin).toBeCloseTo(least, 6);
        },
      ),
      { numRuns: trials(250, 1000) },
    );
  });

  it('finds a pane whose picture does not reach its edge', () => {
    const plan = createRenderPlan(tall, input);
    const [first, ...others] = plan.segments;
    if (!first) throw new Error('the plan has a segment');
    const broken = {
      ...first,
      panes: first.panes.map((pane) => ({ ...pane, picture: { ...pane.picture, height: 1800 } })),
    };
    expect(computeCoverage({ ...plan, segments: [broken, ...others] })).toMatchObject({
      covered: false,
      reason: 'bars',
      bareFrames: 100,
    });
  });

  it('agrees with painting every pixel', () => {
    const even = (most: number) => fc.nat(most / 2).map((value) => value * 2);
    const tile = fc.record({ x: even(20), y: even(20), width: even(20), height: even(20) });
    fc.assert(
      fc.property(fc.array(tile, { maxLength: 5 }), (tiles) => {
        let bare = 0;
        for (let y = 0; y < 20; y++) {
          for (let x = 0; x < 20; x++) {
            if (!tiles.some((t) => x >= t.x && x < t.x + t.width && y >= t.y && y < t.y + t.height))
              bare += 1;
          }
        }
        expect(isTiled(tiles, 20, 20)).toBe(bare === 0);
      }),
    );
  });
});

describe('what two windows share', () => {
  const window = fc.record({
    x: fc.double({ min: 0, max: 0.7, noNaN: true }),
    y: fc.double({ min: 0, max: 0.7, noNaN: true }),
    width: fc.double({ min: 0.1, max: 0.4, noNaN: true }),
    height: fc.double({ min: 0.1, max: 0.4, noNaN: true }),
    angle: fc.double({ min: -45, max: 45, noNaN: true }),
  });

  it('agrees with counting points', () => {
    fc.assert(
      fc.property(window, window, (a, b) => {
        const live = 16 / 9;
        const radians = (angle: number) => (angle * Math.PI) / 180;
        /** A point of one window, 0…1 of it, in live-area heights. */
        const pointAt = (area: typeof a, u: number, v: number) => {
          const [w, h] = [(u - 0.5) * area.width * live, (v - 0.5) * area.height];
          const [cos, sin] = [Math.cos(radians(area.angle)), Math.sin(radians(area.angle))];
          return {
            x: (area.x + area.width / 2) * live + w * cos - h * sin,
            y: area.y + area.height / 2 + w * sin + h * cos,
          };
        };
        const within = (area: typeof a, { x, y }: { x: number; y: number }) => {
          const [dx, dy] = [x - (area.x + area.width / 2) * live, y - area.y - area.height / 2];
          const [cos, sin] = [Math.cos(radians(area.angle)), Math.sin(radians(area.angle))];
          return (
            Math.abs(dx * cos + dy * sin) <= (area.width * live) / 2 &&
            Math.abs(dy * cos - dx * sin) <= area.height / 2
          );
        };
        let inside = 0;
        const steps = 40;
        for (let u = 0; u < steps; u++) {
          for (let v = 0; v < steps; v++) {
            if (within(b, pointAt(a, (u + 0.5) / steps, (v + 0.5) / steps))) inside += 1;
          }
        }
        expect(computeSharedShare(a, b, live)).toBeCloseTo(inside / steps ** 2, 1);
      }),
      { numRuns: 200 },
    );
  });
});
