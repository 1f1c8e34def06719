import fc from 'fast-check';
import { plainFraming } from '../framing/framing';
import { canvasOf, fittedPixels, MAIN_TRACK } from '../layout/canvas';
import { coverageOf, tilesCover } from '../layout/coverage';
import { frameOf, masterRanges, planOf, segmentAt } from './plan';

const FILM = { num: 24000, den: 1001 };
const live = { width: 1920, height: 1080 };
const tall = canvasOf('verrow/short', { width: 1080, height: 1920 }, FILM, 'canvas-1');
const shots = [
  { id: 'a', in: 0, out: 100 },
  { id: 'b', in: 100, out: 250 },
];
const fit = (canvas: typeof tall) => ({
  ...canvas,
  layout: { ...canvas.layout, panes: canvas.layout.panes.map((pane) => ({ ...pane, mode: 'fit' as const })) },
});

describe('plan', () => {
  it('shows exactly the master frames of the cut, in order, each in its shot', () => {
    fc.assert(
      fc.property(fc.nat(249), fc.nat(249), (a, b) => {
        const range = { in: Math.min(a, b), out: Math.max(a, b) + 1 };
        const plan = planOf(tall, { cut: [range], shots, framings: [], live });
        expect(plan.frames).toBe(range.out - range.in);
        for (let n = 0; n < plan.frames; n++) {
          const { masterFrame } = frameOf(plan, n);
          expect(masterFrame).toBe(range.in + n);
          expect(segmentAt(plan, n).shot).toBe(masterFrame < 100 ? 'a' : 'b');
        }
        expect(masterRanges(plan)).toEqual([range]);
      }),
      { numRuns: 25 },
    );
  });

  it('plays several ranges one after another', () => {
    const plan = planOf(tall, {
      cut: [
        { in: 200, out: 210 },
        { in: 5, out: 8 },
      ],
      shots,
      framings: [],
      live,
    });
    expect(Array.from({ length: plan.frames }, (_, n) => frameOf(plan, n).masterFrame)).toEqual([
      200, 201, 202, 203, 204, 205, 206, 207, 208, 209, 5, 6, 7,
    ]);
    expect(() => frameOf(plan, 13)).toThrow(RangeError);
  });

  it('gives each shot its own framing', () => {
    const framing = plainFraming('b', MAIN_TRACK, 100);
    const right = { ...framing, keyframes: [{ ...framing.keyframes[0]!, focus: { x: 0.9, y: 0.5 } }] };
    const plan = planOf(tall, { cut: [{ in: 0, out: 250 }], shots, framings: [right], live });
    const x = (n: number) => frameOf(plan, n).panes[0]?.window.x ?? -1;
    expect(x(99) * 1920).toBeCloseTo(656.25, 6);
    expect(x(100)).toBeCloseTo(1 - 607.5 / 1920, 9);
  });
});

describe('coverage', () => {
  const input = { cut: [{ in: 0, out: 250 }], shots, framings: [], live };

  it('is whole when filled, with the margin of the widest window', () => {
    const found = coverageOf(planOf(tall, input));
    expect(found).toMatchObject({ covered: true, bareFrames: 0 });
    expect(found.leastMargin).toBeCloseTo(656.25, 6);
  });

  it('is broken on every frame when a wide picture is fitted into a tall canvas', () => {
    expect(coverageOf(planOf(fit(tall), input))).toMatchObject({
      covered: false,
      bareFrames: 250,
      worstFrame: 0,
    });
  });

  it('is whole when the fitted picture has the canvas ratio', () => {
    const wide = fit(canvasOf('x/wide', { width: 1280, height: 720 }, FILM, 'canvas-1'));
    expect(coverageOf(planOf(wide, input)).covered).toBe(true);
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
        expect(tilesCover(tiles, 20, 20)).toBe(bare === 0);
      }),
    );
  });

  // Fitted 1080 wide, 1920×1080 is reduced to 56.25 % (1080/1920), so 607.5 rows, 608 on even pixels.
  it('fits at 56.25 %', () => {
    const pane = { x: 0, y: 0, width: 1080, height: 1920 };
    expect(fittedPixels(pane, 16 / 9)).toEqual({ x: 0, y: 656, width: 1080, height: 608 });
  });
});
