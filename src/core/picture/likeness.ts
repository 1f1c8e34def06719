/** Plane of 8-bit samples, row after row without padding. */
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
 * @throws RangeError for planes of other sizes, or smaller than a window.
 */
export const ssim = (a: GreyPlane, b: GreyPlane): number => computeSsims(a, b).all;

/**
 * The structural similarity over all windows, and over some; see {@link ssim}.
 * @param counts of each window, row by row, whether it is one of those.
 * @returns `some` is NaN where there are none.
 */
export function computeSsims(a: GreyPlane, b: GreyPlane, counts?: Uint8Array): { all: number; some: number } {
  let [all, some, counted, windows] = [0, 0, 0, 0];
  eachWindow(a, b, (sums, window) => {
    const now = index(sums);
    all += now;
    windows += 1;
    if (!counts?.[window]) return;
    some += now;
    counted += 1;
  });
  return { all: all / windows, some: some / counted };
}

/** Light of a window varies by at least this much, as a standard deviation in codes, where there is fine detail. */
const FINE = 6;
/** Samples of a window differ by at least this much from the frame before, as a root mean square, where it moves fast. */
const FAST = 8;

/**
 * Windows of a frame, as {@link ssim} takes them, in which fine detail moves fast: what outlets spoil first.
 * @throws RangeError for planes of other sizes, or smaller than a window.
 */
export function findMovingDetail(frame: GreyPlane, before: GreyPlane): Uint8Array {
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
  const { width } = a;
  for (let block = 0, to = 0; block < across; block++, to += SUMS) {
    let [own, other, squares, products] = [0, 0, 0, 0];
    for (let y = 0, from = row * BLOCK * width + block * BLOCK; y < BLOCK; y++, from += width) {
      for (let at = from; at < from + BLOCK; at++) {
        const p = a.data[at] as number;
        const q = b.data[at] as number;
        own += p;
        other += q;
        squares += p * p + q * q;
        products += p * q;
      }
    }
    sums[to] = own;
    sums[to + 1] = other;
    sums[to + 2] = squares;
    sums[to + 3] = products;
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
  for (let i = 0; i < a.data.length; i++) {
    const off = (a.data[i] as number) - (b.data[i] as number);
    sum += off * off;
  }
  return 10 * Math.log10((WHITE ** 2 * a.data.length) / sum);
}
