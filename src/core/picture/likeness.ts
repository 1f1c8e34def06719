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

/** Kinds of sums over a block; see {@link Sums}. */
const SUMS = 4;

/**
 * The structural similarity of two planes of one size, 1 for the same. Source: Z. Wang, A. C. Bovik, H. R. Sheikh, E. P.
 * Simoncelli, "Image quality assessment: from error visibility to structural similarity", IEEE Transactions on Image
 * Processing 13(4), 2004; over windows of 8×8 samples that are 4 apart, as ffmpeg's filter `ssim` takes it.
 * @param counts of each window, row by row, whether it counts; all do where it is left out.
 * @returns NaN where no window counts.
 * @throws RangeError for planes of other sizes, or smaller than a window.
 */
export function ssim(a: GreyPlane, b: GreyPlane, counts?: Uint8Array): number {
  let total = 0;
  let counted = 0;
  eachWindow(a, b, (sums, window) => {
    if (counts && counts[window] === 0) return;
    total += index(sums);
    counted += 1;
  });
  return total / counted;
}

/** Light of a window varies by at least this much, as a standard deviation in codes, where there is fine detail. */
const FINE = 6;
/** Samples of a window differ by at least this much from the frame before, as a root mean square, where it moves fast. */
const FAST = 8;

/**
 * Windows of a frame, as {@link ssim} takes them, in which fine detail moves fast: what outlets spoil first.
 * @throws RangeError for planes of other sizes, or smaller than a window.
 */
export function movingDetail(frame: GreyPlane, before: GreyPlane): Uint8Array {
  const found: number[] = [];
  eachWindow(frame, before, ([own, other, squares, products]) => {
    const moved = (squares - 2 * products) / WINDOW;
    // The squares are of both frames: what they vary by together is taken in halves.
    const varied = (squares - (own * own + other * other) / WINDOW) / WINDOW / 2;
    found.push(Number(moved >= FAST ** 2 && varied >= FINE ** 2));
  });
  return Uint8Array.from(found);
}

/** Sums over a window: of each plane, of both squared, and of their products. */
type Sums = [own: number, other: number, squares: number, products: number];

function eachWindow(a: GreyPlane, b: GreyPlane, take: (sums: Sums, window: number) => void): void {
  const { width, height } = a;
  if (b.width !== width || b.height !== height) throw new RangeError('the planes have other sizes');
  const [across, down] = [Math.floor(width / BLOCK), Math.floor(height / BLOCK)];
  if (across < 2 || down < 2) throw new RangeError('the planes are smaller than a window');
  let before = blockSums(a, b, 0, across);
  const sums: Sums = [0, 0, 0, 0];
  for (let row = 1, window = 0; row < down; row++) {
    const now = blockSums(a, b, row, across);
    for (let n = 0; n + 1 < across; n++, window++) {
      const at = n * SUMS;
      for (let k = 0; k < SUMS; k++) {
        sums[k] =
          (before[at + k] as number) +
          (before[at + SUMS + k] as number) +
          (now[at + k] as number) +
          (now[at + SUMS + k] as number);
      }
      take(sums, window);
    }
    before = now;
  }
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

function index([s1, s2, squares, products]: Sums): number {
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
