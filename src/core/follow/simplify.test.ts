import fc from 'fast-check';
import { type Ease, applyEase, EASES } from '../framing/easing';
import { type KeptPoint, type PathPoint, simplifyPath } from './simplify';

const path = (values: readonly number[]): PathPoint[] =>
  values.map((value, i) => ({ frame: i * 3, values: [value] }));

/** Computes the value that some kept points give at a frame. */
function valueAt(kept: readonly KeptPoint[], frame: number): number {
  const i = kept.findLastIndex(({ point }) => point.frame <= frame);
  const [a, b] = [kept[i], kept[i + 1]];
  if (!a) return NaN;
  const first = a.point.values[0] as number;
  if (!b) return first;
  const u = applyEase(a.ease, (frame - a.point.frame) / (b.point.frame - a.point.frame));
  return first + ((b.point.values[0] as number) - first) * u;
}

describe('a path by few points', () => {
  it('is one point where it stays', () => {
    expect(simplifyPath(path([4, 4, 4.01, 4]), [0.1])).toHaveLength(1);
    expect(simplifyPath(path([7]), [0.1])).toHaveLength(1);
    expect(simplifyPath([], [0.1])).toEqual([]);
  });

  it('is its ends where it is a straight line, or one curve', () => {
    const curves: Ease[] = [EASES.linear, [1 / 3, 0, 2 / 3, 1], [1 / 3, 0.8, 2 / 3, 1]];
    for (const ease of curves) {
      const curve = path(Array.from({ length: 60 }, (_, i) => 100 * applyEase(ease, i / 59)));
      const kept = simplifyPath(curve, [2]);
      expect(kept.map(({ point }) => point.frame)).toEqual([0, 177]);
      if (!ease) expect(kept[0]?.ease).toBeNull();
    }
  });

  it('stands still where the path turns round, and leaves as it arrived anywhere else', () => {
    const wave = path(Array.from({ length: 121 }, (_, i) => 100 * Math.sin(i / 12)));
    const kept = simplifyPath(wave, [1]);
    const slope = (frame: number) => valueAt(kept, frame + 0.01) - valueAt(kept, frame - 0.01);
    const top = kept.find(({ point }) => (point.values[0] as number) > 99.9)!;
    expect(Math.abs(slope(top.point.frame))).toBeLessThan(0.002);
    for (const { point } of kept.slice(1, -1)) {
      const [before, after] = [-0.02, 0.02].map((by) => slope(point.frame + by)) as [number, number];
      expect(Math.abs(before - after)).toBeLessThan(0.01);
    }
  });

  it('is never further off than the tolerance, and passes through its pins', () => {
    const walk = fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 2, maxLength: 60 });
    fc.assert(
      fc.property(walk, fc.nat(59), (moves, pin) => {
        let place = 0;
        const points = path(moves.map((move) => (place += move)));
        const pinned = points[pin % points.length] as PathPoint;
        pinned.pin = { ease: EASES['ease-in'] };
        const kept = simplifyPath(points, [2]);
        for (const { frame, values } of points)
          expect(Math.abs(valueAt(kept, frame) - (values[0] as number))).toBeLessThanOrEqual(2 + 1e-9);
        expect(kept).toContainEqual({ point: pinned, ease: EASES['ease-in'] });
      }),
    );
  });
});
