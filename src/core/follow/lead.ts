/** A direction has turned for good when the subject went this far the other way, as a share of the window's width. */
const FOR_GOOD = 0.2;
/** The seat changes from side to side in this time, in seconds. */
const TURNS_IN = 1.2;

/**
 * Computes which way a subject moves at each step, −1…1, for the room that it gets in front: 0 until it has
 * gone some way, and turned only when the direction has turned for good; what is known then holds from where
 * the way began.
 *
 * @param places along one axis; null where nobody knows. @param size of the window along it, in the same unit.
 * @param stepsASecond of `places`.
 */
export function computeLead(
  places: readonly (number | null)[],
  size: readonly number[],
  stepsASecond: number,
): number[] {
  const way = new Float64Array(places.length);
  let direction = 0;
  /** The furthest place in the direction at hand, and its step. */
  let extreme: { place: number; step: number } | null = null;
  let since = 0;
  const settle = (to: number) => way.fill(direction, since, to);
  places.forEach((place, step) => {
    if (place === null) return;
    extreme ??= { place, step };
    const gone = place - extreme.place;
    if (direction !== 0 && gone * direction >= 0) extreme = { place, step };
    else if (Math.abs(gone) > FOR_GOOD * (size[step] as number)) {
      settle(extreme.step);
      since = extreme.step;
      direction = Math.sign(gone);
      extreme = { place, step };
    }
  });
  settle(places.length);
  return averageWithin(way, Math.round(TURNS_IN * stepsASecond) / 2);
}

/** The mean over so many steps to both sides of each: a jump becomes a ramp. */
function averageWithin(values: Float64Array, reach: number): number[] {
  const steps = Math.floor(reach);
  return Array.from(values, (_, i) => {
    let sum = 0;
    for (let k = i - steps; k <= i + steps; k++)
      sum += values[Math.min(values.length - 1, Math.max(0, k))] as number;
    return sum / (2 * steps + 1);
  });
}
