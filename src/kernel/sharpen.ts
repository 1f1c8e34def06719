import type { Kernel } from './kernel';
import { alignUp } from './memory';
import type { PlanarPicture, PlaneShape, SampleWindow } from './planes';

/** An unsharp mask: the blur's standard deviation in samples, what of the difference is added, and from what on in codes. */
export interface Mask {
  radius: number;
  amount: number;
  threshold: number;
}

/** A Gaussian is cut off where it has no weight left: at three standard deviations. */
const REACH = 3;
/** Unit that weights are counted in. */
const ONE = 32768;

/** Weights of a Gaussian blur that sum to exactly one, in 1/32768. @param radius its standard deviation, over 0. */
export function blurWeights(radius: number): Int16Array {
  const reach = Math.max(1, Math.ceil(REACH * radius));
  const bell = Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.exp(-((i - reach) ** 2) / (2 * radius ** 2)),
  );
  const sum = bell.reduce((total, weight) => total + weight, 0);
  const weights = Int16Array.from(bell, (weight) => Math.round((weight / sum) * ONE));
  const off = ONE - weights.reduce((total, weight) => total + weight, 0);
  weights[reach] = (weights[reach] as number) + off;
  return weights;
}

/**
 * Sharpens the luma of a rectangle in place by an unsharp mask. Source: R. C. Gonzalez and R. E. Woods, "Digital Image
 * Processing", unsharp masking; the threshold is common practice, no source.
 * @param rect whole luma samples of the picture; what lies around it is not looked at.
 */
export function sharpen(kernel: Kernel, picture: PlanarPicture, rect: SampleWindow, mask: Mask): void {
  const weights = blurWeights(mask.radius);
  const table = kernel.block('sharpen-weights', weights.byteLength);
  const reach = weights.length >> 1;
  const padded = kernel.block('sharpen-row', rect.width + 2 * reach + 16);
  const ringStride = alignUp(rect.width, 8) * 2;
  const ring = kernel.block('sharpen-ring', weights.length * ringStride);
  kernel.bytes(table, weights.byteLength).set(new Uint8Array(weights.buffer));
  const { offset, stride } = picture.planes[0] as PlaneShape;
  kernel.exports.sharpenPlane(
    ...[offset + rect.y * stride + rect.x, stride, rect.width, rect.height, table, reach],
    ...[Math.round((mask.amount / 2) * (ONE - 1)), mask.threshold, padded, ring, ringStride],
  );
}
