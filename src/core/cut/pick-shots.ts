import type { Cut, Range } from './cut';

/** Tells whether a cut keeps a shot as a range of its own. */
export const isPicked = (cut: Cut, shot: Range): boolean =>
  cut.some((range) => range.master === shot.master && range.in === shot.in && range.out === shot.out);

/**
 * A cut with a shot picked, or not any longer. While all of a master is kept the first pick keeps that shot alone; the
 * last range of a cut stays.
 *
 * @param frames that the shot's master has.
 */
export function togglePickedShot(cut: Cut, { master, in: first, out }: Range, frames: number): Cut {
  const shot = { master, in: first, out };
  const [only] = cut;
  const whole = cut.length === 1 && only?.master === master && only.in === 0 && only.out >= frames;
  if (whole && !isPicked(cut, shot)) return [shot];
  if (isPicked(cut, shot)) {
    const left = cut.filter((range) => !isPicked([range], shot));
    return left.length > 0 ? left : cut;
  }
  // In the master's order, before the first range that begins later.
  const at = cut.findIndex((range) => range.master === master && range.in > first);
  return at < 0 ? [...cut, shot] : [...cut.slice(0, at), shot, ...cut.slice(at)];
}
