import { lanczos3 } from './lanczos';
import type { Plane } from './test-pictures';

/**
 * Lanczos-3 written plainly: every output sample is one double sum in floating point, edge samples clamped. Slow,
 * and shares nothing with the kernel but the window function.
 *
 * @param origin and `step` place output sample k at source sample origin + k · step on each axis.
 */
export function plainScale(
  source: Plane,
  width: number,
  height: number,
  across: { origin: number; step: number },
  down: { origin: number; step: number },
): Plane {
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const rows = taps(down, y, source.height);
    for (let x = 0; x < width; x++) {
      const columns = taps(across, x, source.width);
      let sum = 0;
      for (const row of rows) {
        for (const column of columns) {
          sum +=
            row.weight * column.weight * (source.data[row.index * source.width + column.index] as number);
        }
      }
      data[y * width + x] = Math.max(0, Math.min(255, Math.round(sum)));
    }
  }
  return { data, width, height };
}

function taps({ origin, step }: { origin: number; step: number }, k: number, length: number) {
  const centre = origin + k * step;
  const widen = Math.max(1, step);
  const found: { index: number; weight: number }[] = [];
  for (let i = Math.ceil(centre - 3 * widen); i <= Math.floor(centre + 3 * widen); i++) {
    const weight = lanczos3((i - centre) / widen);
    if (weight !== 0) found.push({ index: Math.max(0, Math.min(length - 1, i)), weight });
  }
  const total = found.reduce((sum, tap) => sum + tap.weight, 0);
  return found.map((tap) => ({ ...tap, weight: tap.weight / total }));
}
