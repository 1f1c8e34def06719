import type { Kernel } from './kernel';
import type { PlanarPicture, SampleWindow } from './planes';

/** A small picture holds about this many samples in the diameter of its blur. */
const SAMPLES = 4;
/** Times that the small picture is smoothed. */
const PASSES = 2;

/** Size of the small picture that a blurred one is enlarged from. @param blur diameter in the large one's pixels. */
export function blurredSize(width: number, height: number, blur: number): { width: number; height: number } {
  const by = Math.max(1, blur / SAMPLES);
  const small = (side: number) => Math.max(8, Math.round(side / by / 2) * 2);
  return { width: small(width), height: small(height) };
}

/**
 * Smooths samples in place by the binomial 1-2-1 across and down, edges repeating, a few times over.
 * @param step distance between neighbouring samples of one kind in a row.
 */
export function smoothBackdrop(
  data: Uint8Array | Uint8ClampedArray,
  { width, height, stride, step }: { width: number; height: number; stride: number; step: number },
): void {
  const line = new Uint8Array(Math.max(width, height));
  const pass = (start: number, count: number, by: number) => {
    for (let n = 0; n < count; n++) line[n] = data[start + n * by] as number;
    for (let n = 0; n < count; n++) {
      const [before, after] = [
        line[Math.max(0, n - 1)] as number,
        line[Math.min(count - 1, n + 1)] as number,
      ];
      data[start + n * by] = (before + 2 * (line[n] as number) + after + 2) >> 2;
    }
  };
  for (let times = 0; times < PASSES; times++) {
    for (let y = 0; y < height; y++) pass(y * stride, width, step);
    for (let x = 0; x < width; x++) pass(x * step, height, stride);
  }
}

/**
 * Fills a rectangle of a target with a blurred window: made small, smoothed, and enlarged.
 * @param blur diameter in samples of the target. @param rect whole even luma samples of the target.
 */
export function scaleBlurred(
  kernel: Kernel,
  source: PlanarPicture,
  window: SampleWindow,
  target: PlanarPicture,
  rect: SampleWindow,
  blur: number,
): void {
  const { width, height } = blurredSize(rect.width, rect.height, blur);
  const small = kernel.picture('blurred', 'I420', width, height, 16);
  kernel.scale(source, window, small, { x: 0, y: 0, width, height }, 'blurred');
  for (const { offset, stride, width: across, height: down } of small.planes) {
    smoothBackdrop(kernel.bytes(offset, stride * down), { width: across, height: down, stride, step: 1 });
  }
  kernel.scale(small, { x: 0, y: 0, width, height }, target, rect, 'enlarged');
}
