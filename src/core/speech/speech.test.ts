import fc from 'fast-check';
import { SpokenSpans, spokenShare } from './speech';

/** A step of the detector, in seconds: 512 samples at 16 kHz. */
const STEP = 0.032;

function spansOf(likely: readonly number[]) {
  const spans = new SpokenSpans();
  for (const value of likely) spans.push(value);
  return spans.finish();
}
const times = <T>(count: number, value: T): T[] => Array.from({ length: count }, () => value);

describe('the spans of speech', () => {
  it('begin with a likely step and end where eight in a row are unlikely', () => {
    const likely = [...times(10, 0.1), ...times(20, 0.9), ...times(12, 0.1), ...times(5, 0.6)];
    const [first, second, ...more] = spansOf(likely);
    expect(first!.from).toBeCloseTo(10 * STEP);
    expect(first!.to).toBeCloseTo(30 * STEP);
    expect(second!.from).toBeCloseTo(42 * STEP);
    expect(second!.to).toBeCloseTo(47 * STEP);
    expect(more).toEqual([]);
  });

  it('hold over a short pause, and over what is neither likely nor unlikely', () => {
    expect(spansOf([...times(5, 0.8), ...times(7, 0.1), ...times(5, 0.8)])).toHaveLength(1);
    expect(spansOf([0.8, ...times(30, 0.4), 0.8])).toHaveLength(1);
    expect(spansOf([...times(9, 0.1), 0.9, 0.9, ...times(9, 0.1)])).toEqual([]);
    expect(spansOf(times(30, 0.45))).toEqual([]);
  });

  it('lie in order, apart from each other, whatever the steps', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 200 }), (likely) => {
        const spans = spansOf(likely);
        let last = -1;
        for (const { from, to } of spans) {
          expect(from).toBeGreaterThan(last);
          expect(to).toBeGreaterThan(from);
          last = to;
        }
        expect(last).toBeLessThanOrEqual(likely.length * STEP + 1e-9);
        if (spans.length > 0) expect(likely.some((value) => value >= 0.5)).toBe(true);
      }),
    );
  });

  it('make a share of a part', () => {
    const spans = [
      { from: 1, to: 2 },
      { from: 3, to: 5 },
    ];
    expect(spokenShare({ spans }, 0, 4)).toBe(0.5);
    expect(spokenShare({ spans }, 5, 6)).toBe(0);
  });
});
