/** Similarity of what a viewer gets to what was sent: on average, and in the worst second. */
export interface Likeness {
  ssim: number;
  /** The second from the beginning, its least like frame, and how like it is on average. */
  worst: { second: number; frame: number; ssim: number };
}

const computeMean = (values: readonly number[]): number =>
  values.reduce((sum, one) => sum + one, 0) / values.length;

/**
 * @param scores of the frames in order, 0…1; at least one. @param rate frames a second, over 0.
 * @throws RangeError where there is no frame.
 */
export function summarizeLikeness(scores: readonly number[], rate: number): Likeness {
  if (scores.length === 0) throw new RangeError('a film has frames');
  const seconds: number[][] = [];
  scores.forEach((score, frame) => (seconds[Math.floor(frame / rate)] ??= []).push(score));
  const means = seconds.map(computeMean);
  const second = means.indexOf(Math.min(...means));
  const first = Math.ceil(second * rate - 1e-9);
  const own = seconds[second] as number[];
  const frame = first + own.indexOf(Math.min(...own));
  return { ssim: computeMean(scores), worst: { second, frame, ssim: means[second] as number } };
}
