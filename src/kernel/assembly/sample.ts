// Pictures turned by any angle: one sample of the source for every sample of the result.

const FIRST_SHIFT: i32 = 8;
const SECOND_SHIFT: i32 = 20;
const PHASES: f64 = 256;

/**
 * Fills a plane from another, along a straight grid: sample (i, j) is taken at column x + i·ax + j·bx, row
 * y + i·ay + j·by of the source, by a cubic over 4 × 4 samples. across holds for each of 256 phases four 16-bit taps
 * twice; down four 32-bit taps, each twice. The grid stays a sample from the left and top edge and two from the others.
 */
export function samplePlane(
  src: usize,
  srcStride: i32,
  dst: usize,
  dstStride: i32,
  width: i32,
  height: i32,
  x: f64,
  y: f64,
  ax: f64,
  ay: f64,
  bx: f64,
  by: f64,
  across: usize,
  down: usize,
): void {
  for (let j = 0; j < height; j++) {
    const row = dst + <usize>(j * dstStride);
    const startX = x + <f64>j * bx,
      startY = y + <f64>j * by;
    for (let i = 0; i < width; i++) {
      const column = startX + <f64>i * ax,
        line = startY + <f64>i * ay;
      const left = <i32>column,
        top = <i32>line;
      const phaseX = <usize>((column - <f64>left) * PHASES),
        phaseY = <usize>((line - <f64>top) * PHASES);
      const from = src + <usize>((top - 1) * srcStride + left - 1);
      let taps = v128.load32_zero(from);
      taps = v128.load32_lane(from + <usize>srcStride, taps, 1);
      taps = v128.load32_lane(from + <usize>(2 * srcStride), taps, 2);
      taps = v128.load32_lane(from + <usize>(3 * srcStride), taps, 3);
      const weights = v128.load(across + (phaseX << 4));
      const upper = i32x4.shr_s(i32x4.dot_i16x8_s(i16x8.extend_low_i8x16_u(taps), weights), FIRST_SHIFT);
      const lower = i32x4.shr_s(i32x4.dot_i16x8_s(i16x8.extend_high_i8x16_u(taps), weights), FIRST_SHIFT);
      const rows = down + (phaseY << 5);
      const sum = i32x4.add(i32x4.mul(upper, v128.load(rows)), i32x4.mul(lower, v128.load(rows + 16)));
      const total =
        i32x4.extract_lane(sum, 0) +
        i32x4.extract_lane(sum, 1) +
        i32x4.extract_lane(sum, 2) +
        i32x4.extract_lane(sum, 3) +
        (1 << (SECOND_SHIFT - 1));
      store<u8>(row + <usize>i, <u8>max(0, min(255, total >> SECOND_SHIFT)));
    }
  }
}
