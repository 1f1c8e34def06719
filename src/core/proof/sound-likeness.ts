/** A root mean square under this is silence: −60 dB of full scale. */
const SILENCE = 0.001;

/** Tells whether a sound is audible anywhere; false for none. @param levels root mean squares. */
export const isAudible = (levels: Float32Array | null): boolean =>
  levels?.some((level) => level > SILENCE) ?? false;

/**
 * How much two sounds rise and fall together, −1…1 (Pearson's correlation of their levels); null where one of them does
 * not change at all.
 * @param shift levels that the first is ahead.
 */
export function computeCorrelation(first: Float32Array, second: Float32Array, shift = 0): number | null {
  const from = Math.max(0, -shift);
  const to = Math.min(second.length, first.length - shift);
  const count = to - from;
  if (count < 2) return null;
  let [sumA, sumB, squareA, squareB, product] = [0, 0, 0, 0, 0];
  for (let n = from; n < to; n++) {
    const [a, b] = [first[n + shift] as number, second[n] as number];
    sumA += a;
    sumB += b;
    squareA += a * a;
    squareB += b * b;
    product += a * b;
  }
  const [spreadA, spreadB] = [squareA - sumA ** 2 / count, squareB - sumB ** 2 / count];
  if (spreadA <= 1e-12 || spreadB <= 1e-12) return null;
  return (product - (sumA * sumB) / count) / Math.sqrt(spreadA * spreadB);
}
