import type { Borders } from '../picture/borders';

/** A line counts as black up to this mean luma, in limited range where black is 16 (the usual limit of border searches: 24). */
const BLACK_MEAN = 24;

/**
 * Widths of the black borders of one 8-bit luma plane.
 *
 * @param luma rows of `stride` bytes. @param width samples in a row. @param height rows.
 * @returns null when the whole picture is black, which tells nothing about borders.
 */
export function blackBorders(
  luma: Uint8Array,
  stride: number,
  width: number,
  height: number,
): Borders | null {
  const rowMean = (y: number) => {
    let sum = 0;
    for (let x = y * stride; x < y * stride + width; x++) sum += luma[x] as number;
    return sum / width;
  };
  const columnMean = (x: number) => {
    let sum = 0;
    for (let y = 0; y < height; y++) sum += luma[y * stride + x] as number;
    return sum / height;
  };
  const run = (length: number, mean: (i: number) => number) => {
    let i = 0;
    while (i < length && mean(i) <= BLACK_MEAN) i++;
    return i;
  };
  const top = run(height, rowMean);
  if (top === height) return null;
  return {
    top,
    bottom: run(height, (i) => rowMean(height - 1 - i)),
    left: run(width, columnMean),
    right: run(width, (i) => columnMean(width - 1 - i)),
  };
}

/** The border that two frames of one shot share: what is black in both. Null tells nothing. */
export function sharedBorders(a: Borders | null, b: Borders | null): Borders | null {
  if (!a || !b) return a ?? b;
  return combine(a, b, Math.min);
}

/** The wider borders of two shots. */
export function widerBorders(a: Borders, b: Borders): Borders {
  return combine(a, b, Math.max);
}

function combine(a: Borders, b: Borders, pick: (x: number, y: number) => number): Borders {
  return {
    left: pick(a.left, b.left),
    top: pick(a.top, b.top),
    right: pick(a.right, b.right),
    bottom: pick(a.bottom, b.bottom),
  };
}
