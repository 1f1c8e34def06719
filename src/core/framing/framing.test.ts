import fc from 'fast-check';
import { type Keyframe, keyframeAt, plainFraming, windowAt, windowOf } from './framing';
import { enlargement, marginOf, moved, zoomed } from './moves';

const HD = { width: 1920, height: 1080 };
const UHD = { width: 3840, height: 2160 };
const middle = { x: 0.5, y: 0.5 };
const plain = plainFraming('shot-1', 'main', 0);
const windowFor = (canvas: { width: number; height: number }, picture = HD) =>
  windowAt(plain.keyframes, 0, canvas.width / canvas.height, picture.width / picture.height);

const unit = fc.double({ min: 0, max: 1, noNaN: true });
const point = fc.record({ x: unit, y: unit });
const keyframe = fc.record<Keyframe>({
  frame: fc.nat(1000),
  focus: point,
  seat: point,
  zoom: fc.double({ min: 1, max: 8, noNaN: true }),
});
const aspect = fc.double({ min: 0.3, max: 3.5, noNaN: true });

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

  it('keeps 607.5 of 1920 pixels for a tall canvas, with 656.25 to either side', () => {
    const window = windowFor({ width: 1080, height: 1920 });
    expect(window.width * HD.width).toBeCloseTo(607.5, 9);
    const margin = marginOf(window, HD);
    expect(margin.left).toBeCloseTo(656.25, 9);
    expect(margin.right).toBeCloseTo(656.25, 9);
    expect(margin.top).toBe(0);
  });

  it('gives the 4K and the 1080 canvas of one ratio the same window', () => {
    fc.assert(
      fc.property(keyframe, (key) => {
        expect(windowOf(key, 1080 / 1920, 16 / 9)).toEqual(windowOf(key, 2160 / 3840, 16 / 9));
      }),
    );
  });

  it('never leaves the picture and has the ratio of its pane', () => {
    fc.assert(
      fc.property(
        fc.array(keyframe, { minLength: 1, maxLength: 6 }),
        fc.nat(1200),
        aspect,
        aspect,
        (keys, frame, pane, live) => {
          const sorted = [...new Map(keys.map((key) => [key.frame, key])).values()].sort(
            (a, b) => a.frame - b.frame,
          );
          const window = windowAt(sorted, frame, pane, live);
          expect(window.x).toBeGreaterThanOrEqual(0);
          expect(window.y).toBeGreaterThanOrEqual(0);
          expect(window.x + window.width).toBeLessThanOrEqual(1 + 1e-12);
          expect(window.y + window.height).toBeLessThanOrEqual(1 + 1e-12);
          expect((window.width / window.height) * live).toBeCloseTo(pane, 6);
        },
      ),
    );
  });
});

describe('keyframes', () => {
  const keys: Keyframe[] = [
    { frame: 10, focus: { x: 0.2, y: 0.5 }, seat: middle, zoom: 1 },
    { frame: 20, focus: { x: 0.8, y: 0.5 }, seat: middle, zoom: 2 },
  ];

  it('hold outside, and run in a straight line between', () => {
    expect(keyframeAt(keys, 0).focus.x).toBe(0.2);
    expect(keyframeAt(keys, 99).focus.x).toBe(0.8);
    expect(keyframeAt(keys, 15).focus.x).toBeCloseTo(0.5, 12);
    expect(keyframeAt(keys, 15).zoom).toBeCloseTo(1.5, 12);
    expect(keyframeAt(keys, 20).zoom).toBe(2);
  });
});

describe('moves', () => {
  const aspects = { pane: 9 / 16, live: 16 / 9 };
  const windowIn = (framing: typeof plain) => windowAt(framing.keyframes, 0, aspects.pane, aspects.live);

  it('move the window by what was asked, and stop at the edge', () => {
    const there = moved(plain, { x: 0.1, y: 0 }, aspects);
    expect(windowIn(there).x - windowIn(plain).x).toBeCloseTo(0.1, 12);
    const edge = moved(plain, { x: 5, y: 0 }, aspects);
    expect(windowIn(edge).x + windowIn(edge).width).toBeCloseTo(1, 12);
    // The way back starts at the edge, not where the finger went.
    expect(windowIn(moved(edge, { x: -0.05, y: 0 }, aspects)).x).toBeCloseTo(windowIn(edge).x - 0.05, 12);
  });

  it('zoom about a place keeps that place where it is in the window', () => {
    const pin = { x: 0.45, y: 0.6 };
    const near = zoomed(plain, 2, pin, aspects);
    const [before, after] = [windowIn(plain), windowIn(near)];
    expect((pin.x - after.x) / after.width).toBeCloseTo((pin.x - before.x) / before.width, 9);
    expect((pin.y - after.y) / after.height).toBeCloseTo((pin.y - before.y) / before.height, 9);
  });

  it('never zoom out past the picture, and keep focus a place in it', () => {
    fc.assert(
      fc.property(keyframe, fc.double({ min: 0.05, max: 20, noNaN: true }), point, (key, factor, pin) => {
        const next = zoomed({ ...plain, keyframes: [key] }, factor, pin, aspects).keyframes[0] as Keyframe;
        expect(next.zoom).toBeGreaterThanOrEqual(1);
        expect(next.zoom).toBeLessThanOrEqual(8);
        for (const value of [next.focus.x, next.focus.y]) {
          expect(value).toBeGreaterThanOrEqual(0);
          expect(value).toBeLessThanOrEqual(1);
        }
      }),
    );
  });

  it('move every keyframe of a moving framing alike', () => {
    const moving = {
      ...plain,
      keyframes: [
        { frame: 0, focus: { x: 0.4, y: 0.5 }, seat: middle, zoom: 2 },
        { frame: 9, focus: { x: 0.5, y: 0.5 }, seat: middle, zoom: 2 },
      ],
    };
    const focuses = moved(moving, { x: 0.1, y: 0.05 }, aspects).keyframes.map((key) => key.focus);
    expect(focuses[0]?.x).toBeCloseTo(0.5, 12);
    expect(focuses[1]?.x).toBeCloseTo(0.6, 12);
    expect(focuses[1]?.y).toBeCloseTo(0.55, 12);
  });
});
