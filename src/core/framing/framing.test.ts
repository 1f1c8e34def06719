import fc from 'fast-check';
import { type Keyframe, findKeyframe, plainFraming, type Values } from './framing';
import {
  enlargement,
  computeMargin,
  moveWindow,
  moveFocus,
  moveAnchor,
  sharpWidth,
  snapMove,
  computeTilt,
  tiltFraming,
  zoomFraming,
} from './moves';
import {
  computeBounds,
  computeCentre,
  computeCorners,
  computeMinZoom,
  widestHeight,
  computeWindow,
  toWindow,
} from './window';

const HD = { width: 1920, height: 1080 };
const UHD = { width: 3840, height: 2160 };
const middle = { x: 0.5, y: 0.5 };
const plain = plainFraming('shot-1', 'main', 0);
const windowFor = (canvas: { width: number; height: number }, picture = HD) =>
  computeWindow(plain, 0, { pane: canvas.width / canvas.height, live: picture.width / picture.height });

const unit = fc.double({ min: 0, max: 1, noNaN: true });
const point = fc.record({ x: unit, y: unit });
const values = fc.record<Values>({
  focus: point,
  seat: point,
  zoom: fc.double({ min: 1, max: 8, noNaN: true }),
  tilt: fc.double({ min: -45, max: 45, noNaN: true }),
});
const keyframe = fc
  .tuple(values, fc.nat(1000))
  .map(([value, frame]): Keyframe => ({ ...value, frame, ease: null }));
const aspect = fc.double({ min: 0.3, max: 3.5, noNaN: true });
const turn = fc.constantFrom<(0 | 90 | 180 | 270)[]>(0, 90, 180, 270);

describe('fill', () => {
  // 1920×1080 is enlarged to 177.8 % to fill 1080×1920, shown at 100 % to fill 1080×1080; 3840×2160 fills
  // 1080×1920 at 88.9 % (arithmetic of the sizes: 1920/1080, 1080/1080, 1920/2160).
  it.each([
    [HD, { width: 1080, height: 1920 }, 177.8],
    [HD, { width: 1080, height: 1080 }, 100],
    [UHD, { width: 1080, height: 1920 }, 88.9],
  ])('of %p into %p enlarges to %d %%', (picture, canvas, percent) => {
    const value = enlargement(windowFor(canvas, picture), picture, canvas.width) * 100;
    expect(Number(value.toFixed(1))).toBe(percent);
  });

  it('says up to which size a master stays sharp', () => {
    // 607.5 of 1920 pixels fill 1080: from 606 on even pixels they are enlarged.
    expect(sharpWidth(1920 / 1080, 1080)).toBe(606);
    expect(sharpWidth(1920 / 2160, 1080)).toBe(1214);
  });

  it('keeps 607.5 of 1920 pixels for a tall canvas, with 656.25 to either side', () => {
    const window = windowFor({ width: 1080, height: 1920 });
    expect(window.width * HD.width).toBeCloseTo(607.5, 9);
    const margin = computeMargin(window, HD);
    expect(margin.left).toBeCloseTo(656.25, 9);
    expect(margin.right).toBeCloseTo(656.25, 9);
    expect(margin.top).toBeCloseTo(0, 9);
  });

  it('gives the 4K and the 1080 canvas of one ratio the same window', () => {
    fc.assert(
      fc.property(values, turn, (value, quarter) => {
        const live = 16 / 9;
        expect(toWindow(value, quarter, { pane: 1080 / 1920, live })).toEqual(
          toWindow(value, quarter, { pane: 2160 / 3840, live }),
        );
      }),
    );
  });

  it('never leaves the live area, tilted or turned, and has the ratio of its pane', () => {
    fc.assert(
      fc.property(
        fc.array(keyframe, { minLength: 1, maxLength: 6 }),
        fc.nat(1200),
        aspect,
        aspect,
        turn,
        (keys, frame, pane, live, quarter) => {
          const keyframes = [...new Map(keys.map((key) => [key.frame, key])).values()].sort(
            (a, b) => a.frame - b.frame,
          );
          const window = computeWindow({ keyframes, turn: quarter }, frame, { pane, live });
          for (const { x, y } of computeCorners(window, live)) {
            for (const middle of [x, y]) {
              expect(middle).toBeGreaterThanOrEqual(-1e-9);
              expect(middle).toBeLessThanOrEqual(1 + 1e-9);
            }
          }
          expect((window.width / window.height) * live).toBeCloseTo(pane, 6);
        },
      ),
      { numRuns: 500 },
    );
  });

  it('has bounds that its corners touch', () => {
    fc.assert(
      fc.property(values, turn, aspect, aspect, (value, quarter, pane, live) => {
        const window = toWindow(value, quarter, { pane, live });
        const bounds = computeBounds(window, live);
        const corners = computeCorners(window, live);
        expect(Math.min(...corners.map(({ x }) => x))).toBeCloseTo(bounds.x, 9);
        expect(Math.max(...corners.map(({ y }) => y))).toBeCloseTo(bounds.y + bounds.height, 9);
      }),
    );
  });
});

describe('the least zoom of a tilt', () => {
  it('is what brute force over zooms and corners finds', () => {
    fc.assert(
      fc.property(aspect, aspect, fc.double({ min: -45, max: 45, noNaN: true }), (pane, live, tilt) => {
        const whole = widestHeight({ pane, live }, 0);
        // Corners of a centred window of a zoom, tilted, in live-area heights; bisected to the first that fits.
        const fits = (zoom: number) => {
          const [h, w] = [whole / zoom, (whole * pane) / zoom];
          const [cos, sin] = [Math.cos((tilt * Math.PI) / 180), Math.sin((tilt * Math.PI) / 180)];
          return [
            [w, h],
            [w, -h],
          ].every(
            ([a, b]) =>
              Math.abs((a as number) * cos - (b as number) * sin) <= live &&
              Math.abs((a as number) * sin + (b as number) * cos) <= 1,
          );
        };
        let [low, high] = [1, 64];
        for (let n = 0; n < 60; n++) {
          const between = (low + high) / 2;
          if (fits(between)) high = between;
          else low = between;
        }
        expect(computeMinZoom({ pane, live }, 0, tilt)).toBeCloseTo(high, 6);
      }),
      { numRuns: 300 },
    );
  });

  // The largest rectangle of any ratio inside a rotated rectangle has a closed form: with w ≥ h, when h ≤ w·sin 2α
  // two of its corners lie on the long sides, x = h/2 by the sines; else (w·cos α − h·sin α, h·cos α − w·sin α) / cos 2α.
  // Source: "coproc", "Rotate image and crop out black borders", answer of 2013 on a public questions site (from memory).
  it('agrees with the closed form for the largest rectangle in a rotated one', () => {
    const largest = (w: number, h: number, angle: number) => {
      const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
      const [long, short] = w >= h ? [w, h] : [h, w];
      if (short <= 2 * sin * cos * long) {
        const x = short / 2;
        return w >= h ? [x / sin, x / cos] : [x / cos, x / sin];
      }
      const cos2 = cos * cos - sin * sin;
      return [(w * cos - h * sin) / cos2, (h * cos - w * sin) / cos2];
    };
    fc.assert(
      fc.property(aspect, fc.double({ min: 0.5, max: 44, noNaN: true }), (live, tilt) => {
        const [w, h] = largest(live, 1, (tilt * Math.PI) / 180) as [number, number];
        // A window of that ratio is as large as that rectangle.
        expect(widestHeight({ pane: w / h, live }, tilt)).toBeCloseTo(h, 9);
      }),
    );
  });

  it('of a turned window is that of the sides exchanged', () => {
    const live = 16 / 9;
    expect(widestHeight({ pane: 9 / 16, live }, 90)).toBeCloseTo(16 / 9, 12);
    expect(computeMinZoom({ pane: 9 / 16, live }, 90, 0)).toBe(1);
    // 1 / (cos 10° + 9/16 · sin 10°): the window that filled all of a turned picture loses its corners.
    expect(computeMinZoom({ pane: 9 / 16, live }, 90, 10)).toBeGreaterThan(1.1);
  });
});

describe('keyframes', () => {
  const base = { seat: middle, tilt: 0, ease: null };
  const keys: Keyframe[] = [
    { ...base, frame: 10, focus: { x: 0.2, y: 0.5 }, zoom: 1 },
    { ...base, frame: 20, focus: { x: 0.8, y: 0.5 }, zoom: 2, tilt: 10 },
  ];

  it('hold outside, and run in a straight line between', () => {
    expect(findKeyframe(keys, 0).focus.x).toBe(0.2);
    expect(findKeyframe(keys, 99).focus.x).toBe(0.8);
    expect(findKeyframe(keys, 15).focus.x).toBeCloseTo(0.5, 12);
    expect(findKeyframe(keys, 15).zoom).toBeCloseTo(1.5, 12);
    expect(findKeyframe(keys, 15).tilt).toBeCloseTo(5, 12);
    expect(findKeyframe(keys, 20).zoom).toBe(2);
  });
});

describe('moves', () => {
  const aspects = { pane: 9 / 16, live: 16 / 9 };
  const windowIn = (framing: typeof plain) => computeWindow(framing, 0, aspects);

  it('move the window by what was asked, and stop at the edge', () => {
    const there = moveWindow(plain, 'shot', { x: 0.1, y: 0 }, aspects);
    expect(windowIn(there).x - windowIn(plain).x).toBeCloseTo(0.1, 12);
    const edge = moveWindow(plain, 'shot', { x: 5, y: 0 }, aspects);
    expect(windowIn(edge).x + windowIn(edge).width).toBeCloseTo(1, 12);
    // The way back starts at the edge, not where the finger went.
    expect(windowIn(moveWindow(edge, 'shot', { x: -0.05, y: 0 }, aspects)).x).toBeCloseTo(
      windowIn(edge).x - 0.05,
      12,
    );
  });

  it('keep what other canvases show along an axis that has no room here', () => {
    const aside = moveFocus(plain, 'shot', { x: 0.8, y: 0.4 });
    const wide = { pane: 16 / 9, live: 16 / 9 };
    expect(moveWindow(aside, 'shot', { x: 0.1, y: 0.1 }, wide).keyframes[0]?.focus).toEqual({
      x: 0.8,
      y: 0.4,
    });
    const square = moveWindow(aside, 'shot', { x: 0, y: 0.1 }, { pane: 1, live: 16 / 9 });
    expect(square.keyframes[0]?.focus).toEqual({ x: 0.8, y: 0.4 });
  });

  it('move a tilted window by what was asked', () => {
    const tight = { ...plain, keyframes: [{ ...plain.keyframes[0]!, zoom: 4, tilt: 20 }] };
    const there = moveWindow(tight, 'shot', { x: 0.05, y: -0.03 }, aspects);
    const [a, b] = [computeCentre(windowIn(tight)), computeCentre(windowIn(there))];
    expect(b.x - a.x).toBeCloseTo(0.05, 9);
    expect(b.y - a.y).toBeCloseTo(-0.03, 9);
  });

  it('zoom about a place keeps that place where it is in the window', () => {
    const pin = { x: 0.45, y: 0.6 };
    const near = zoomFraming(plain, 'shot', 2, pin, aspects);
    const [before, after] = [windowIn(plain), windowIn(near)];
    expect((pin.x - after.x) / after.width).toBeCloseTo((pin.x - before.x) / before.width, 9);
    expect((pin.y - after.y) / after.height).toBeCloseTo((pin.y - before.y) / before.height, 9);
  });

  it('never zoom out past the picture, and keep focus a place in it', () => {
    fc.assert(
      fc.property(keyframe, fc.double({ min: 0.05, max: 20, noNaN: true }), point, (key, factor, pin) => {
        const next = zoomFraming({ ...plain, keyframes: [key] }, 'shot', factor, pin, aspects)
          .keyframes[0] as Keyframe;
        expect(next.zoom).toBeGreaterThanOrEqual(1);
        expect(next.zoom).toBeLessThanOrEqual(8);
        for (const value of [next.focus.x, next.focus.y]) {
          expect(value).toBeGreaterThanOrEqual(0);
          expect(value).toBeLessThanOrEqual(1);
        }
      }),
    );
  });

  const moving = {
    ...plain,
    keyframes: [
      { ...plain.keyframes[0]!, frame: 0, focus: { x: 0.4, y: 0.5 }, zoom: 2 },
      { ...plain.keyframes[0]!, frame: 9, focus: { x: 0.5, y: 0.5 }, zoom: 2 },
    ],
  };

  it('are for every keyframe alike when they are for the shot', () => {
    const focuses = moveWindow(moving, 'shot', { x: 0.1, y: 0.05 }, aspects).keyframes.map(
      (key) => key.focus,
    );
    expect(focuses[0]?.x).toBeCloseTo(0.5, 12);
    expect(focuses[1]?.x).toBeCloseTo(0.6, 12);
    expect(focuses[1]?.y).toBeCloseTo(0.55, 12);
    expect(tiltFraming(moving, 'shot', 0, 7).keyframes.map((key) => key.tilt)).toEqual([7, 7]);
  });

  it('are for one frame when they are for that, and make its keyframe', () => {
    const now = moveWindow(moving, 5, { x: 0.1, y: 0 }, aspects);
    expect(now.keyframes.map((key) => key.frame)).toEqual([0, 5, 9]);
    expect(now.keyframes[0]).toEqual(moving.keyframes[0]);
    expect(moveWindow(now, 5, { x: 0.1, y: 0 }, aspects).keyframes).toHaveLength(3);
  });

  it('put a point at the seat', () => {
    const placed = moveAnchor(moveFocus(plain, 'shot', { x: 0.6, y: 0.5 }), 'shot', { x: 1 / 3, y: 0.5 });
    const window = windowIn(placed);
    expect(window.x + window.width / 3).toBeCloseTo(0.6, 12);
  });

  it('snap to the middle, the thirds and the edges, and only near them', () => {
    const window = windowIn(plain);
    const reach = { x: 0.01, y: 0.01 };
    const by = (x: number) => snapMove(window, { x, y: 0 }, reach, aspects.live).x;
    expect(window.x + window.width / 2 + by(1 / 6 + 0.004)).toBeCloseTo(2 / 3, 12);
    expect(window.x + by(-window.x + 0.009)).toBeCloseTo(0, 12);
    expect(by(0.05)).toBe(0.05);
  });

  it('make a line level or upright, whichever is nearer', () => {
    expect(computeTilt({ x: 10, y: 1 })).toBeCloseTo(5.7106, 4);
    expect(computeTilt({ x: -10, y: -1 })).toBeCloseTo(5.7106, 4);
    expect(computeTilt({ x: 1, y: 10 })).toBeCloseTo(-5.7106, 4);
  });
});
