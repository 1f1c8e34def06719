// The pixel kernel: plane arithmetic in WebAssembly with 128-bit SIMD. All buffers are laid out by ../kernel.ts.

export { boxPlane, countBright, countComb, fieldDistance, halvePlane } from './analysis';
export { mapColour } from './colour-map';
export { deinterlacePlane } from './deinterlace';
export { rgbPlanes } from './rgb';
export { samplePlane } from './sample';

/** Horizontal taps come in groups of 8, so one load8x8 and one dot product serve a group. */
const TAP_GROUP: i32 = 8;
/** Between the passes a sample keeps 6 fraction bits: 255 × 64 × Lanczos overshoot still fits 16 bits. */
const FIRST_SHIFT: i32 = 8;
const FIRST_ROUND: i32 = 1 << 7;
const SECOND_SHIFT: i32 = 20;
const SECOND_ROUND: i32 = 1 << 19;

/** The dot product of one output sample's taps with the source row, still spread over four lanes. */
@inline
function spreadSum(row: usize, start: usize, coefs: usize, groups: i32): v128 {
  const from = row + <usize>load<i32>(start);
  let sum = i32x4.dot_i16x8_s(v128.load8x8_u(from), v128.load(coefs));
  for (let g = 1; g < groups; g++) {
    const offset = <usize>(g * TAP_GROUP);
    sum = i32x4.add(sum, i32x4.dot_i16x8_s(v128.load8x8_u(from + offset), v128.load(coefs + (offset << 1))));
  }
  return sum;
}

/** Four spread sums to four totals: two rounds of shuffle and add, since wasm has no horizontal add. */
@inline
function gather(a: v128, b: v128, c: v128, d: v128): v128 {
  const ab = i32x4.add(v128.shuffle<i32>(a, b, 0, 4, 1, 5), v128.shuffle<i32>(a, b, 2, 6, 3, 7));
  const cd = i32x4.add(v128.shuffle<i32>(c, d, 0, 4, 1, 5), v128.shuffle<i32>(c, d, 2, 6, 3, 7));
  return i32x4.add(v128.shuffle<i32>(ab, cd, 0, 1, 4, 5), v128.shuffle<i32>(ab, cd, 2, 3, 6, 7));
}

/** Eight sums of one row, rounded to 16-bit samples. */
@inline
function storeFirst(out: usize, low: v128, high: v128): void {
  const round = i32x4.splat(FIRST_ROUND);
  v128.store(
    out,
    i16x8.narrow_i32x4_s(
      i32x4.shr_s(i32x4.add(low, round), FIRST_SHIFT),
      i32x4.shr_s(i32x4.add(high, round), FIRST_SHIFT),
    ),
  );
}

/** Four output samples of one row. */
@inline
function fourSums(row: usize, s: usize, c: usize, step: usize, groups: i32): v128 {
  return gather(
    spreadSum(row, s, c, groups),
    spreadSum(row, s + 4, c + step, groups),
    spreadSum(row, s + 8, c + 2 * step, groups),
    spreadSum(row, s + 12, c + 3 * step, groups),
  );
}

/**
 * Two source rows resampled to `width8` 16-bit samples (a multiple of 8; the padding has zero taps). Two at a time,
 * because they share every tap and start that is loaded.
 */
@inline
function filterRows(a: usize, b: usize, outA: usize, outB: usize, width8: i32, starts: usize, coefs: usize, groups: i32): void {
  const step = <usize>(groups << 4);
  for (let x = 0; x < width8; x += 8) {
    const s = starts + (<usize>x << 2);
    const c = coefs + <usize>x * step;
    const offset = <usize>x << 1;
    const lowA = fourSums(a, s, c, step, groups), lowB = fourSums(b, s, c, step, groups);
    storeFirst(outA + offset, lowA, fourSums(a, s + 16, c + 4 * step, step, groups));
    storeFirst(outB + offset, lowB, fourSums(b, s + 16, c + 4 * step, step, groups));
  }
}

/** Adds two intermediate rows, weighted by a pair of taps, to eight running sums. */
@inline
function lowPair(a: v128, b: v128, pair: v128): v128 {
  return i32x4.dot_i16x8_s(v128.shuffle<i16>(a, b, 0, 8, 1, 9, 2, 10, 3, 11), pair);
}
@inline
function highPair(a: v128, b: v128, pair: v128): v128 {
  return i32x4.dot_i16x8_s(v128.shuffle<i16>(a, b, 4, 12, 5, 13, 6, 14, 7, 15), pair);
}
@inline
function storeEight(out: usize, low: v128, high: v128): void {
  const words = i16x8.narrow_i32x4_s(i32x4.shr_s(low, SECOND_SHIFT), i32x4.shr_s(high, SECOND_SHIFT));
  v128.store64_lane(out, i8x16.narrow_i16x8_u(words, words), 0);
}

/**
 * Resamples one 8-bit plane. Horizontal first: when a clip is enlarged the source has fewer rows than the
 * output, so the dear pass runs over fewer of them; rows wait in a ring that stays in the first cache.
 * rows[y * vTaps + t] is the source row of a tap, already clamped; a ring slot is row % ringRows.
 */
export function scalePlane(
  src: usize, srcStride: i32, srcHeight: i32, dst: usize, dstStride: i32, width8: i32, height: i32,
  hStarts: usize, hCoefs: usize, hGroups: i32,
  vRows: usize, vCoefs: usize, vTaps: i32,
  ring: usize, ringRows: i32,
): void {
  const ringStride = <usize>width8 << 1;
  const round = i32x4.splat(SECOND_ROUND);
  let next = load<i32>(vRows);
  for (let y = 0; y < height; y++) {
    const rows = vRows + (<usize>(y * vTaps) << 2);
    const coefs = vCoefs + (<usize>(y * vTaps) << 1);
    const last = load<i32>(rows + (<usize>(vTaps - 1) << 2));
    // Rows that no tap asks for, between two outputs of a strong reduction, are skipped.
    next = max(next, load<i32>(rows));
    for (; next <= last; next += 2) {
      const second = min(next + 1, srcHeight - 1);
      const rowA = src + <usize>next * <usize>srcStride, rowB = src + <usize>second * <usize>srcStride;
      const slotA = ring + <usize>(next % ringRows) * ringStride;
      const slotB = ring + <usize>((next + 1) % ringRows) * ringStride;
      // The common case (enlarging: one group) is compiled apart so that its inner loop vanishes.
      if (hGroups == 1) filterRows(rowA, rowB, slotA, slotB, width8, hStarts, hCoefs, 1);
      else filterRows(rowA, rowB, slotA, slotB, width8, hStarts, hCoefs, hGroups);
    }
    const out = dst + <usize>y * <usize>dstStride;
    if (vTaps == 6) {
      // Six taps (every enlargement): row pointers and taps stay in registers over the whole row.
      const r0 = ring + <usize>(load<i32>(rows) % ringRows) * ringStride;
      const r1 = ring + <usize>(load<i32>(rows, 4) % ringRows) * ringStride;
      const r2 = ring + <usize>(load<i32>(rows, 8) % ringRows) * ringStride;
      const r3 = ring + <usize>(load<i32>(rows, 12) % ringRows) * ringStride;
      const r4 = ring + <usize>(load<i32>(rows, 16) % ringRows) * ringStride;
      const r5 = ring + <usize>(load<i32>(rows, 20) % ringRows) * ringStride;
      const p0 = v128.load32_splat(coefs);
      const p1 = v128.load32_splat(coefs + 4);
      const p2 = v128.load32_splat(coefs + 8);
      for (let x: usize = 0; x < ringStride; x += 16) {
        const a = v128.load(r0 + x), b = v128.load(r1 + x);
        const c = v128.load(r2 + x), d = v128.load(r3 + x);
        const e = v128.load(r4 + x), f = v128.load(r5 + x);
        const low = i32x4.add(i32x4.add(lowPair(a, b, p0), lowPair(c, d, p1)), i32x4.add(lowPair(e, f, p2), round));
        const high = i32x4.add(i32x4.add(highPair(a, b, p0), highPair(c, d, p1)), i32x4.add(highPair(e, f, p2), round));
        storeEight(out + (x >> 1), low, high);
      }
      continue;
    }
    for (let x: usize = 0; x < ringStride; x += 16) {
      let low = round, high = round;
      for (let t = 0; t < vTaps; t += 2) {
        const at = rows + (<usize>t << 2);
        const a = v128.load(ring + <usize>(load<i32>(at) % ringRows) * ringStride + x);
        const b = v128.load(ring + <usize>(load<i32>(at, 4) % ringRows) * ringStride + x);
        const pair = v128.load32_splat(coefs + (<usize>t << 1));
        low = i32x4.add(low, lowPair(a, b, pair));
        high = i32x4.add(high, highPair(a, b, pair));
      }
      storeEight(out + (x >> 1), low, high);
    }
  }
}

/** Splits interleaved chroma (NV12) into two planes; `pairs` samples of each, read in steps of 16. */
export function splitPairs(src: usize, u: usize, v: usize, pairs: i32): void {
  for (let i = 0; i < pairs; i += 16) {
    const a = v128.load(src + (<usize>i << 1));
    const b = v128.load(src + (<usize>i << 1) + 16);
    v128.store(u + <usize>i, v128.shuffle<u8>(a, b, 0, 2, 4, 6, 8, 10, 12, 14, 16, 18, 20, 22, 24, 26, 28, 30));
    v128.store(v + <usize>i, v128.shuffle<u8>(a, b, 1, 3, 5, 7, 9, 11, 13, 15, 17, 19, 21, 23, 25, 27, 29, 31));
  }
}

/** 16-bit samples of `bits` significant bits to 8 bits, rounded; `count` is read in steps of 16. */
export function narrowSamples(src: usize, dst: usize, count: i32, bits: i32): void {
  const shift = bits - 8;
  const round = i16x8.splat(<i16>1 << <i16>(shift - 1));
  for (let i = 0; i < count; i += 16) {
    const a = i16x8.shr_u(i16x8.add(v128.load(src + (<usize>i << 1)), round), shift);
    const b = i16x8.shr_u(i16x8.add(v128.load(src + (<usize>i << 1) + 16), round), shift);
    v128.store(dst + <usize>i, i8x16.narrow_i16x8_u(a, b));
  }
}

/** Turns a plane clockwise by `quarters` quarter turns, then mirrors it; width and height are the source's. */
export function turnPlane(src: usize, srcStride: i32, width: i32, height: i32, dst: usize, dstStride: i32, quarters: i32, mirrored: i32): void {
  const lastX = (quarters & 1 ? height : width) - 1;
  for (let y = 0; y < height; y++) {
    const row = src + <usize>(y * srcStride);
    for (let x = 0; x < width; x++) {
      let tx = x, ty = y;
      if (quarters == 1) { tx = height - 1 - y; ty = x; }
      else if (quarters == 2) { tx = width - 1 - x; ty = height - 1 - y; }
      else if (quarters == 3) { tx = y; ty = width - 1 - x; }
      if (mirrored) tx = lastX - tx;
      store<u8>(dst + <usize>(ty * dstStride + tx), load<u8>(row + <usize>x));
    }
  }
}

@inline
function toByte(value: f32): u8 {
  return <u8>max<f32>(0, min<f32>(255, value + 0.5));
}

/**
 * Converts 4:2:0 planes in place between matrices and ranges. m holds eight f32: luma gain, luma offset, luma
 * from Cb and from Cr, then Cb and Cr rows (Cb', Cr' from Cb, Cr). Luma takes chroma interpolated at left siting.
 */
export function convertColour(yPlane: usize, yStride: i32, u: usize, v: usize, cStride: i32, width: i32, height: i32, m: usize): void {
  const gain = load<f32>(m), offset = load<f32>(m, 4), yu = load<f32>(m, 8), yv = load<f32>(m, 12);
  const uu = load<f32>(m, 16), uv = load<f32>(m, 20), vu = load<f32>(m, 24), vv = load<f32>(m, 28);
  const last = (width >> 1) - 1;
  for (let cy = 0; cy < height >> 1; cy++) {
    const uRow = u + <usize>(cy * cStride), vRow = v + <usize>(cy * cStride);
    for (let half = 0; half < 2; half++) {
      const row = yPlane + <usize>((cy * 2 + half) * yStride);
      for (let x = 0; x < width; x++) {
        const c = <usize>(x >> 1), n = <usize>min(last, (x + 1) >> 1);
        const cb = <f32>(<i32>load<u8>(uRow + c) + <i32>load<u8>(uRow + n)) * 0.5 - 128;
        const cr = <f32>(<i32>load<u8>(vRow + c) + <i32>load<u8>(vRow + n)) * 0.5 - 128;
        store<u8>(row + <usize>x, toByte(<f32>load<u8>(row + <usize>x) * gain + offset + yu * cb + yv * cr));
      }
    }
    for (let x: usize = 0; x <= <usize>last; x++) {
      const cb = <f32>load<u8>(uRow + x) - 128, cr = <f32>load<u8>(vRow + x) - 128;
      store<u8>(uRow + x, toByte(uu * cb + uv * cr + 128));
      store<u8>(vRow + x, toByte(vu * cb + vv * cr + 128));
    }
  }
}

/** First byte of memory that the module itself does not use. */
export function heapBase(): usize {
  return __heap_base;
}
