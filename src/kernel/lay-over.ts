import type { Kernel } from './kernel';
import type { SampleWindow, PlanarPicture } from './planes';

/**
 * How much of a sample lies inside a round corner, 0…1: its distance from the circle, a sample wide.
 * @param x and `y` of the sample's middle, from the corner. @param radius in samples.
 */
export function cornerCover(x: number, y: number, radius: number): number {
  if (x >= radius || y >= radius) return 1;
  const inside = radius - Math.hypot(radius - x, radius - y) + 0.5;
  return Math.min(1, Math.max(0, inside));
}

/**
 * Lays a picture over a rectangle of a target, with round corners.
 * @param rect whole even luma samples, of the picture's size. @param radius in luma samples; 0 for square corners.
 */
export function layOver(
  kernel: Kernel,
  picture: PlanarPicture,
  target: PlanarPicture,
  rect: SampleWindow,
  radius: number,
): void {
  picture.planes.forEach((from, index) => {
    const to = target.planes[index];
    if (!to) throw new RangeError(`the target has no plane ${index}`);
    const sub = index === 0 ? 1 : 2;
    const [left, top] = [rect.x / sub, rect.y / sub];
    const round = radius / sub;
    for (let y = 0; y < from.height; y++) {
      const source = kernel.bytes(from.offset + y * from.stride, from.width);
      const row = kernel.bytes(to.offset + (top + y) * to.stride + left, from.width);
      const down = Math.min(y, from.height - 1 - y) + 0.5;
      const rounded = down < round ? Math.min(Math.ceil(round), from.width >> 1) : 0;
      row.set(source.subarray(rounded, from.width - rounded), rounded);
      for (let x = 0; x < rounded; x++) {
        const cover = cornerCover(x + 0.5, down, round);
        for (const column of [x, from.width - 1 - x]) {
          const under = row[column] as number;
          row[column] = Math.round(under + ((source[column] as number) - under) * cover);
        }
      }
    }
  });
}
