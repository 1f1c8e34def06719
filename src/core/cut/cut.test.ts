import fc from 'fast-check';
import { cutLength, cutSchema, cutSpan, trimmedTo, withIn, withOut } from './cut';

const range = fc
  .tuple(fc.nat(500), fc.integer({ min: 1, max: 200 }))
  .map(([start, length]) => ({ in: start, out: start + length }));
const cut = fc.array(range, { minLength: 1, maxLength: 5 });

describe('a cut', () => {
  it('trimmed keeps its first frames, exactly as many as asked', () => {
    fc.assert(
      fc.property(cut, fc.integer({ min: 1, max: 900 }), (whole, frames) => {
        const kept = trimmedTo(whole, frames);
        expect(cutLength(kept)).toBe(Math.min(frames, cutLength(whole)));
        kept.forEach((one, i) => expect(one.in).toBe(whole[i]!.in));
        expect(cutSchema.safeParse(kept).success).toBe(true);
      }),
    );
  });

  it('stays a cut of the master wherever its ends are put', () => {
    fc.assert(
      fc.property(fc.nat(1200), fc.nat(1200), (first, last) => {
        const moved = withOut(withIn([{ in: 0, out: 1000 }], first), last, 1000);
        expect(cutSchema.safeParse(moved).success).toBe(true);
        expect(cutSpan(moved).out).toBeLessThanOrEqual(1000);
      }),
    );
  });

  it('is never empty', () => {
    expect(cutSchema.safeParse([]).success).toBe(false);
    expect(cutSchema.safeParse([{ in: 5, out: 5 }]).success).toBe(false);
    expect(() => cutSpan([])).toThrow(RangeError);
  });
});
