import fc from 'fast-check';
import type { Values } from '../framing/framing';
import { mixed } from '../framing/framing';
import { marginOf } from '../framing/moves';
import { windowOf } from '../framing/window';
import { between, directions, heldWithin, type Interval, minus, plus, times } from './interval';
import { leastMargin } from './margin-bounds';

const number = fc.double({ min: -50, max: 50, noNaN: true });
const interval = fc.tuple(number, number).map(([a, b]) => between(a, b));
const unit = fc.double({ min: 0, max: 1, noNaN: true });
const inside = ([low, high]: Interval, u: number) => low + (high - low) * u;
/** Whether an interval holds a number, as far as rounding goes. */
const holds = ([low, high]: Interval, value: number) => value >= low - 1e-9 && value <= high + 1e-9;

describe('an interval', () => {
  it('of a sum, a difference or a product holds every one of them', () => {
    fc.assert(
      fc.property(interval, interval, unit, unit, (a, b, u, v) => {
        const [x, y] = [inside(a, u), inside(b, v)];
        expect(holds(plus(a, b), x + y)).toBe(true);
        expect(holds(minus(a, b), x - y)).toBe(true);
        expect(holds(times(a, b), x * y)).toBe(true);
      }),
    );
  });

  it('of cosines and sines holds those of every angle in it, crests too', () => {
    const angle = fc.double({ min: -45, max: 400, noNaN: true });
    fc.assert(
      fc.property(angle, fc.double({ min: 0, max: 90, noNaN: true }), unit, (from, long, u) => {
        const of = directions([from, from + long]);
        const radians = ((from + long * u) * Math.PI) / 180;
        expect(holds(of.cos, Math.cos(radians))).toBe(true);
        expect(holds(of.sin, Math.sin(radians))).toBe(true);
        expect(holds(of.absCos, Math.abs(Math.cos(radians)))).toBe(true);
        expect(holds(of.absSin, Math.abs(Math.sin(radians)))).toBe(true);
      }),
      { numRuns: 500 },
    );
    expect(directions([80, 100]).sin[1]).toBe(1);
    expect(directions([80, 100]).absCos[0]).toBe(0);
  });

  it('held between bounds holds every number held between every pair of them', () => {
    fc.assert(
      fc.property(interval, interval, interval, unit, unit, unit, (value, a, b, u, v, w) => {
        const low: Interval = [Math.min(a[0], b[0]), Math.min(a[1], b[1])];
        const high: Interval = [Math.max(a[0], b[0]), Math.max(a[1], b[1])];
        const [x, from, to] = [inside(value, u), inside(low, v), inside(high, w)];
        fc.pre(from <= to);
        expect(holds(heldWithin(value, low, high), Math.min(Math.max(x, from), to))).toBe(true);
      }),
    );
  });
});

describe('the bound on a margin', () => {
  const point = fc.record({ x: unit, y: unit });
  const values = fc.record<Values>({
    focus: point,
    seat: point,
    zoom: fc.double({ min: 1, max: 8, noNaN: true }),
    tilt: fc.oneof(fc.constant(0), fc.double({ min: -45, max: 45, noNaN: true })),
  });
  const aspect = fc.double({ min: 0.3, max: 3.5, noNaN: true });
  const turn = fc.constantFrom<(0 | 90 | 180 | 270)[]>(0, 90, 180, 270);

  it('is never above the margin of any window between its two ends', () => {
    fc.assert(
      fc.property(values, values, turn, aspect, aspect, unit, (a, b, quarter, pane, live, u) => {
        const size = { width: 1000 * live, height: 1000 };
        const window = windowOf(mixed(a, b, u), quarter, { pane, live });
        const { left, right, top, bottom } = marginOf(window, size);
        const margin = Math.max(Math.min(left, right), Math.min(top, bottom));
        expect(leastMargin(a, b, quarter, { pane, live }, 1000)).toBeLessThanOrEqual(margin + 1e-6);
      }),
      { numRuns: 3000 },
    );
  });

  it('is the margin itself where the two ends are one', () => {
    fc.assert(
      fc.property(values, turn, aspect, aspect, (a, quarter, pane, live) => {
        const size = { width: 1000 * live, height: 1000 };
        const { left, right, top, bottom } = marginOf(windowOf(a, quarter, { pane, live }), size);
        const margin = Math.max(Math.min(left, right), Math.min(top, bottom));
        expect(leastMargin(a, a, quarter, { pane, live }, 1000)).toBeCloseTo(margin, 5);
      }),
      { numRuns: 500 },
    );
  });
});
