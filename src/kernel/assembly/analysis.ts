// What the pass measures of planes.

import { distance } from './distance';

/** A plane at half its size: each sample is the rounded mean of four. Reads rows in steps of 32 samples. */
export function halvePlane(
  src: usize,
  srcStride: i32,
  dst: usize,
  dstStride: i32,
  width: i32,
  height: i32,
): void {
  const two = i16x8.splat(2);
  for (let y = 0; y < height; y++) {
    const a = src + <usize>(2 * y * srcStride),
      b = a + <usize>srcStride;
    const out = dst + <usize>(y * dstStride);
    for (let x = 0; x < width; x += 16) {
      const at = <usize>(x << 1);
      const low = i16x8.add(
        i16x8.extadd_pairwise_i8x16_u(v128.load(a + at)),
        i16x8.extadd_pairwise_i8x16_u(v128.load(b + at)),
      );
      const high = i16x8.add(
        i16x8.extadd_pairwise_i8x16_u(v128.load(a + at + 16)),
        i16x8.extadd_pairwise_i8x16_u(v128.load(b + at + 16)),
      );
      v128.store(
        out + <usize>x,
        i8x16.narrow_i16x8_u(i16x8.shr_u(i16x8.add(low, two), 2), i16x8.shr_u(i16x8.add(high, two), 2)),
      );
    }
  }
}

/** A plane made smaller by a whole factor: each sample is the rounded mean of factor × factor. */
export function boxPlane(src: usize, srcStride: i32, dst: usize, width: i32, height: i32, factor: i32): void {
  const area = factor * factor,
    half = area >> 1;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let sum = half;
      let row = src + <usize>(y * factor * srcStride + x * factor);
      for (let j = 0; j < factor; j++, row += <usize>srcStride) {
        for (let i: usize = 0; i < <usize>factor; i++) sum += load<u8>(row + i);
      }
      store<u8>(dst + <usize>(y * width + x), <u8>(sum / area));
    }
  }
}

/**
 * Counts samples brighter than a level, by row and by column. rows holds one i32 a row; columns one i32 a column,
 * width rounded up to 16.
 */
export function countBright(
  src: usize,
  stride: i32,
  width: i32,
  height: i32,
  level: i32,
  rows: usize,
  columns: usize,
): void {
  const limit = i8x16.splat(<i8>level);
  memory.fill(columns, 0, <usize>(((width + 15) & ~15) << 2));
  for (let y = 0; y < height; y++) {
    const row = src + <usize>(y * stride);
    let count = 0;
    let x = 0;
    for (; x + 16 <= width; x += 16) {
      const bright = i8x16.gt_u(v128.load(row + <usize>x), limit);
      const mask = i8x16.bitmask(bright);
      if (mask == 0) continue;
      count += popcnt(mask);
      // Each lane is −1 where bright: taking it away adds one.
      const at = columns + ((<usize>x) << 2);
      const low = i16x8.extend_low_i8x16_s(bright),
        high = i16x8.extend_high_i8x16_s(bright);
      v128.store(at, i32x4.sub(v128.load(at), i32x4.extend_low_i16x8_s(low)));
      v128.store(at + 16, i32x4.sub(v128.load(at + 16), i32x4.extend_high_i16x8_s(low)));
      v128.store(at + 32, i32x4.sub(v128.load(at + 32), i32x4.extend_low_i16x8_s(high)));
      v128.store(at + 48, i32x4.sub(v128.load(at + 48), i32x4.extend_high_i16x8_s(high)));
    }
    for (; x < width; x++) {
      if (<i32>load<u8>(row + <usize>x) <= level) continue;
      count += 1;
      const at = columns + ((<usize>x) << 2);
      store<i32>(at, load<i32>(at) + 1);
    }
    store<i32>(rows + ((<usize>y) << 2), count);
  }
}

/** Samples of the odd rows that stand out from both rows beside them, in one direction, by more than a step. */
export function countComb(src: usize, stride: i32, width: i32, height: i32, step: i32): i32 {
  const by = i8x16.splat(<i8>step);
  let count = 0;
  for (let y = 1; y + 1 < height; y += 2) {
    const row = src + <usize>(y * stride);
    for (let x = 0; x + 16 <= width; x += 16) {
      const c = v128.load(row + <usize>x);
      const a = v128.load(row + <usize>x - <usize>stride),
        b = v128.load(row + <usize>x + <usize>stride);
      const above = i8x16.gt_u(c, i8x16.add_sat_u(i8x16.max_u(a, b), by));
      const below = i8x16.lt_u(c, i8x16.sub_sat_u(i8x16.min_u(a, b), by));
      count += popcnt(i8x16.bitmask(v128.or(above, below)));
    }
  }
  return count;
}

/**
 * The sum of distances between the rows of one parity of a plane and the rows beside them, of the other parity, of
 * another plane.
 */
export function fieldDistance(a: usize, b: usize, stride: i32, width: i32, height: i32, parity: i32): f64 {
  let total: f64 = 0;
  for (let y = parity == 0 ? 2 : 1; y + 1 < height; y += 2) {
    const row = a + <usize>(y * stride);
    const above = b + <usize>((y - 1) * stride),
      below = b + <usize>((y + 1) * stride);
    let sum = i32x4.splat(0);
    for (let x = 0; x + 16 <= width; x += 16) {
      const other = i8x16.avgr_u(v128.load(above + <usize>x), v128.load(below + <usize>x));
      const pairs = i16x8.extadd_pairwise_i8x16_u(distance(v128.load(row + <usize>x), other));
      sum = i32x4.add(sum, i32x4.extadd_pairwise_i16x8_u(pairs));
    }
    total += <f64>(
      (i32x4.extract_lane(sum, 0) +
        i32x4.extract_lane(sum, 1) +
        i32x4.extract_lane(sum, 2) +
        i32x4.extract_lane(sum, 3))
    );
  }
  return total;
}
