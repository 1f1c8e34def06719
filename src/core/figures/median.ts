/** The middle of some values, or the mean of the two in the middle; NaN of none. */
export function computeMedian(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const [low, high] = [sorted[(sorted.length - 1) >> 1], sorted[sorted.length >> 1]];
  return low === undefined || high === undefined ? NaN : (low + high) / 2;
}
