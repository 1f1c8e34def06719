/** One plane of 8-bit samples, row after row without padding. */
export interface GreyPlane {
  data: Uint8Array;
  width: number;
  height: number;
}

/** A block's side; windows are two blocks wide and high, and a block apart. */
const BLOCK = 4;
/** Samples of a window. */
const WINDOW = (2 * BLOCK) ** 2;
const WHITE = 255;
/** The constants of the index, times what sums over a window are larger than means. */
const C1 = (0.01 * WHITE) ** 2 * WINDOW;
const C2 = (0.03 * WHITE) ** 2 * WINDOW * (WINDOW - 1);

/** Sums over a block: of each plane, of both squared, and of their products. */
const SUMS = 4;

/**
 * The structural similarity of two planes of one size, 1 for the same. Source: Z. Wang, A. C. Bovik, H. R. Sheikh, E. P.
 * Simoncelli, "Image quality assessment: from error visibility to structural similarity", IEEE Transactions on Image
 * Processing 13(4), 2004; over windows of 8×8 samples that are 4 apart, as ffmpeg's filter `ssim` takes it.
 * @throws RangeError for planes of other sizes, or smaller than a window.
 */
export function ssim(a: GreyPlane, b: GreyPlane): number {
  const { width, height } = a;
  if (b.width !== width || b.height !== height) throw new RangeError('the planes have other sizes');
  const [across, down] = [Math.floor(width / BLOCK), Math.floor(height / BLOCK)];
  if (across < 2 || down < 2) throw new RangeError('the planes are smaller than a window');
  let before = blockSums(a, b, 0, across);
  let total = 0;
  for (let row = 1; row < down; row++) {
    const now = blockSums(a, b, row, across);
    for (let n = 0; n + 1 < across; n++) total += windowIndex(before, now, n);
    before = now;
  }
  return total / ((across - 1) * (down - 1));
}

function blockSums(a: GreyPlane, b: GreyPlane, row: number, across: number): Float64Array {
  const sums = new Float64Array(across * SUMS);
  for (let y = row * BLOCK; y < (row + 1) * BLOCK; y++) {
    for (let x = 0, at = y * a.width; x < across * BLOCK; x++, at++) {
      const [p, q] = [a.data[at] as number, b.data[at] as number];
      const to = (x >> 2) * SUMS;
      (sums[to] as number) += p;
      (sums[to + 1] as number) += q;
      (sums[to + 2] as number) += p * p + q * q;
      (sums[to + 3] as number) += p * q;
    }
  }
  return sums;
}

/** The index of the window whose upper left block is a row's nth. */
function windowIndex(upper: Float64Array, lower: Float64Array, n: number): number {
  const sum = (k: number): number =>
    [upper, lower].reduce(
      (total, row) => total + (row[n * SUMS + k] as number) + (row[(n + 1) * SUMS + k] as number),
      0,
    );
  const [s1, s2, squares, products] = [sum(0), sum(1), sum(2), sum(3)];
  const variances = squares * WINDOW - s1 * s1 - s2 * s2;
  const covariance = products * WINDOW - s1 * s2;
  return ((2 * s1 * s2 + C1) * (2 * covariance + C2)) / ((s1 * s1 + s2 * s2 + C1) * (variances + C2));
}

/** The peak signal-to-noise ratio of two planes of one size, in decibels; Infinity for the same (ITU-T J.340). */
export function psnr(a: GreyPlane, b: GreyPlane): number {
  if (b.data.length !== a.data.length) throw new RangeError('the planes have other sizes');
  let sum = 0;
  a.data.forEach((value, i) => (sum += (value - (b.data[i] as number)) ** 2));
  return 10 * Math.log10((WHITE ** 2 * a.data.length) / sum);
}
