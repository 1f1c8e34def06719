import fc from 'fast-check';
import { type Cut, rangeStarts } from '../cut/cut';
import type { FrameRate } from '../time/frame-rate';
import { toSpans, toStretches, type Timeline } from './spans';

const FILM = { num: 24000, den: 1001 };
const RATES: FrameRate[] = [FILM, { num: 25, den: 1 }, { num: 30000, den: 1001 }, { num: 60, den: 1 }];
const FRAMES = 3000;

function timeline(cut: Cut, own: FrameRate = FILM, rate: FrameRate = own): Timeline {
  const masters = () => ({ rate: own, frames: FRAMES });
  return { cut, starts: rangeStarts(cut, masters, rate), masters, rate };
}
const range = (first: number, out: number) => ({ master: 'm', in: first, out });

/** A cut of up to four ranges that do not meet: no frame is in it twice. */
const cuts = fc
  .uniqueArray(fc.integer({ min: 0, max: FRAMES }), { minLength: 2, maxLength: 8 })
  .map((edges) => [...edges].sort((a, b) => a - b))
  .map((edges) =>
    Array.from({ length: edges.length >> 1 }, (_, i) => range(edges[2 * i]!, edges[2 * i + 1]!)),
  );

describe('frames that words belong to', () => {
  it('are seen at the same output frames again, at the master’s own rate', () => {
    fc.assert(
      fc.property(cuts, fc.nat(), fc.nat(), (cut, a, b) => {
        const time = timeline(cut);
        const whole = time.starts[cut.length]!;
        const [from, to] = [Math.min(a % whole, b % whole), Math.max(a % whole, b % whole) + 1];
        expect(toStretches(toSpans({ from, to }, time)!, time)).toEqual([{ from, to }]);
      }),
    );
  });

  it('begin and end within a frame at any pair of rates', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...RATES),
        fc.constantFrom(...RATES),
        fc.nat(800),
        fc.nat(800),
        (own, rate, a, b) => {
          const time = timeline([range(200, 1400)], own, rate);
          const whole = time.starts[1]!;
          const [from, to] = [Math.min(a, b) % whole, (Math.max(a, b) % whole) + 1];
          if (to <= from) return;
          const [seen, ...more] = toStretches(toSpans({ from, to }, time)!, time);
          expect(more).toEqual([]);
          // A master's frame may be on screen for several of the clip's.
          const step = Math.ceil((rate.num * own.den) / (rate.den * own.num));
          expect(Math.abs(seen!.from - from)).toBeLessThanOrEqual(step);
          expect(Math.abs(seen!.to - to)).toBeLessThanOrEqual(step);
        },
      ),
    );
  });

  it('follow the cut, go with what is cut away, and come back with it', () => {
    const words = [range(100, 150)];
    expect(toStretches(words, timeline([range(0, 1000)]))).toEqual([{ from: 100, to: 150 }]);
    expect(toStretches(words, timeline([range(500, 600), range(80, 200)]))).toEqual([{ from: 120, to: 170 }]);
    expect(toStretches(words, timeline([range(120, 130)]))).toEqual([{ from: 0, to: 10 }]);
    expect(toStretches(words, timeline([range(0, 100)]))).toEqual([]);
    expect(toStretches(words, timeline([range(0, 1000)]))).toEqual([{ from: 100, to: 150 }]);
  });

  it('are seen each time that they are in the cut, and once where ranges meet', () => {
    expect(toStretches([range(10, 20)], timeline([range(0, 30), range(0, 30)]))).toEqual([
      { from: 10, to: 20 },
      { from: 40, to: 50 },
    ]);
    expect(toStretches([range(10, 20)], timeline([range(0, 15), range(15, 30)]))).toEqual([
      { from: 10, to: 20 },
    ]);
  });

  it('may reach over a cut, and are none outside the clip', () => {
    const time = timeline([range(0, 20), range(100, 120)]);
    const spans = toSpans({ from: 10, to: 30 }, time);
    expect(spans).toEqual([range(10, 20), range(100, 110)]);
    expect(toStretches(spans!, time)).toEqual([{ from: 10, to: 30 }]);
    expect(toSpans({ from: 40, to: 50 }, time)).toBeNull();
  });
});
