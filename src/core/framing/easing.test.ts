import fc from 'fast-check';
import { type Ease, applyEase, EASES, easeName } from './easing';

const unit = fc.double({ min: 0, max: 1, noNaN: true });

/** The curve by its definition: the t whose x is u, found by halving, and the y there. */
function byHalving(ease: Ease, u: number): number {
  if (!ease) return u;
  const [x1, y1, x2, y2] = ease;
  const bezier = (a: number, b: number, t: number) =>
    3 * a * t * (1 - t) ** 2 + 3 * b * t ** 2 * (1 - t) + t ** 3;
  let [low, high] = [0, 1];
  for (let n = 0; n < 100; n++) {
    const t = (low + high) / 2;
    if (bezier(x1, x2, t) < u) low = t;
    else high = t;
  }
  return bezier(y1, y2, low);
}

describe('an ease', () => {
  // CSS Easing Functions Level 1, section 2.2: the named curves, and their values as the definition gives them.
  it.each([
    ['ease', 0.25, 0.4085],
    ['ease', 0.5, 0.8024],
    ['ease-in', 0.5, 0.3154],
    ['ease-out', 0.5, 0.6846],
    ['ease-in-out', 0.25, 0.1292],
    ['ease-in-out', 0.5, 0.5],
    ['linear', 0.3, 0.3],
  ] as const)('%s at %d is %d', (name, u, value) => {
    expect(applyEase(EASES[name], u)).toBeCloseTo(value, 4);
  });

  it('agrees with halving for every curve', () => {
    fc.assert(
      fc.property(fc.tuple(unit, unit, unit, unit), unit, (ease, u) => {
        // Where a curve stands upright, the two may stop at different places of the same x.
        const steep = Math.abs(byHalving(ease, u - 1e-6) - byHalving(ease, u + 1e-6)) > 1e-3;
        if (!steep) expect(applyEase(ease, u)).toBeCloseTo(byHalving(ease, u), 4);
      }),
      { numRuns: 2000 },
    );
  });

  it('starts at 0, ends at 1, and never falls', () => {
    fc.assert(
      fc.property(fc.tuple(unit, unit, unit, unit), unit, unit, (ease, a, b) => {
        expect(applyEase(ease, 0)).toBe(0);
        expect(applyEase(ease, 1)).toBe(1);
        expect(applyEase(ease, Math.max(a, b))).toBeGreaterThanOrEqual(
          applyEase(ease, Math.min(a, b)) - 1e-6,
        );
      }),
    );
  });

  it('is known by its name', () => {
    expect(easeName([0.42, 0, 0.58, 1])).toBe('ease-in-out');
    expect(easeName(null)).toBe('linear');
    expect(easeName([0, 0, 1, 0])).toBeNull();
  });
});
