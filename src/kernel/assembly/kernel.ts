// The pixel kernel: plane arithmetic in WebAssembly with 128-bit SIMD. All buffers are laid out by ../kernel.ts.

export { boxPlane, countBright, countComb, fieldDistance, halvePlane } from './analysis';
export { blendPlane } from './blend';
export { mapColour } from './colour-map';
export { deinterlacePlane } from './deinterlace';
export { rgbPlanes } from './rgb';
export { samplePlane } from './sample';
export { sharpenPlane } from './sharpen';

/** Between the passes a sample keeps 6 fraction bits: 255 × 64 × Lanczos overshoot still fits 16 bits. */
const FIRST_SHIFT: i32 = 8;
const FIRST_ROUND: i32 = 1 << 7;
const SECOND_SHIFT: i32 = 20;
const SECOND_ROUND: i32 = 1 << 19;

/** A pair of neighbouring samples for each of four outputs, as eight 16-bit lanes: picked out of sixteen by a shuffle. */
@inline
function pickNear(from: usize, picks: usize): v128 {
  const samples = v128.load(from), places = v128.load(picks);
  // Every index is under 16 or gives zero, where both mean the same; the relaxed one is a single instruction.
  return ASC_FEATURE_RELAXED_SIMD ? i8x16.relaxed_swizzle(samples, places) : i8x16.swizzle(samples, places);
}

/** The same for outputs that lie further apart: picks holds the place of each. */
@inline
function pickFar(from: usize, picks: usize): v128 {
  let found = v128.load16_lane(from + <usize>load<i32>(picks), i16x8.splat(0), 0);
  found = v128.load16_lane(from + <usize>load<i32>(picks, 4), found, 1);
  found = v128.load16_lane(from + <usize>load<i32>(picks, 8), found, 2);
  found = v128.load16_lane(from + <usize>load<i32>(picks, 12), found, 3);
  return i16x8.extend_low_i8x16_u(found);
}

/** Four output samples of a row: for each pair of taps one dot product. */
@inline
function fourSums(from: usize, picks: usize, weights: usize, pairs: i32, near: bool): v128 {
  let sum = i32x4.splat(FIRST_ROUND);
  for (let p = 0; p < pairs; p++) {
    const at = from + <usize>(p << 1);
    const samples = near ? pickNear(at, picks) : pickFar(at, picks);
    sum = i32x4.add(sum, i32x4.dot_i16x8_s(samples, v128.load(weights + <usize>(p << 4))));
  }
  return sum;
}

/** Eight sums of one row as 16-bit samples. */
@inline
function firstSamples(low: v128, high: v128): v128 {
  return i16x8.narrow_i32x4_s(i32x4.shr_s(low, FIRST_SHIFT), i32x4.shr_s(high, FIRST_SHIFT));
}

/** Stores eight samples of a row and of the row after it, sample beside sample. */
@inline
function storePair(out: usize, upper: v128, lower: v128): void {
  v128.store(out, v128.shuffle<i16>(upper, lower, 0, 8, 1, 9, 2, 10, 3, 11));
  v128.store(out, v128.shuffle<i16>(upper, lower, 4, 12, 5, 13, 6, 14, 7, 15), 16);
}

/**
 * Two source rows resampled to `width8` 16-bit samples (a multiple of 8; the padding has zero taps). Two at a time,
 * because they share every tap that is loaded. They go into the ring in pairs: the row before with the first, and the
 * first with the second; `before` holds the row before, and then the second.
 */
@inline
function filterRows(
  a: usize, b: usize, pairBefore: usize, pairHere: usize, before: usize, width8: i32,
  starts: usize, picks: usize, weights: usize, pairs: i32, near: bool,
): void {
  const step = <usize>(pairs << 4);
  for (let x = 0; x < width8; x += 8) {
    const q = <usize>x >> 2;
    const s0 = <usize>load<i32>(starts + (q << 2)), s1 = <usize>load<i32>(starts + (q << 2), 4);
    const p0 = picks + (q << 4), p1 = p0 + 16;
    const w0 = weights + q * step, w1 = w0 + step;
    const rowA = firstSamples(fourSums(a + s0, p0, w0, pairs, near), fourSums(a + s1, p1, w1, pairs, near));
    const rowB = firstSamples(fourSums(b + s0, p0, w0, pairs, near), fourSums(b + s1, p1, w1, pairs, near));
    const offset = <usize>x << 2, kept = before + (<usize>x << 1);
    storePair(pairBefore + offset, v128.load(kept), rowA);
    storePair(pairHere + offset, rowA, rowB);
    v128.store(kept, rowB);
  }
}

@inline
function storeEight(out: usize, low: v128, high: v128): void {
  const words = i16x8.narrow_i32x4_s(i32x4.shr_s(low, SECOND_SHIFT), i32x4.shr_s(high, SECOND_SHIFT));
  v128.store64_lane(out, i8x16.narrow_i16x8_u(words, words), 0);
}

/**
 * Resamples one 8-bit plane. Horizontal first: when a clip is enlarged the source has fewer rows than the
 * output, so the dear pass runs over fewer of them; pairs of rows wait in a ring that stays in the cache.
 * vRows[y] is the first row of an output's taps; those that would fall outside are folded into the edge already.
 */
export function scalePlane(
  src: usize, srcStride: i32, srcHeight: i32, dst: usize, dstStride: i32, width8: i32, height: i32,
  hStarts: usize, hPicks: usize, hWeights: usize, hPairs: i32, hNear: bool,
  vRows: usize, vWeights: usize, vPairs: i32,
  ring: usize, ringRows: i32, before: usize,
): void {
  const ringStride = <usize>width8 << 2;
  const round = i32x4.splat(SECOND_ROUND);
  let next = load<i32>(vRows);
  for (let y = 0; y < height; y++) {
    const first = load<i32>(vRows + (<usize>y << 2));
    const weights = vWeights + (<usize>(y * vPairs) << 2);
    // Rows that no tap asks for, between two outputs of a strong reduction, are skipped.
    next = max(next, first);
    for (const end = first + 2 * vPairs; next < end; next += 2) {
      const rowA = src + <usize>min(next, srcHeight - 1) * <usize>srcStride;
      const rowB = src + <usize>min(next + 1, srcHeight - 1) * <usize>srcStride;
      const slotA = ring + <usize>((next - 1 + ringRows) % ringRows) * ringStride;
      const slotB = ring + <usize>(next % ringRows) * ringStride;
      // Each case is compiled apart; the common one (enlarging: six taps) without an inner loop.
      if (hPairs == 3) filterRows(rowA, rowB, slotA, slotB, before, width8, hStarts, hPicks, hWeights, 3, true);
      else if (hNear) filterRows(rowA, rowB, slotA, slotB, before, width8, hStarts, hPicks, hWeights, hPairs, true);
      else filterRows(rowA, rowB, slotA, slotB, before, width8, hStarts, hPicks, hWeights, hPairs, false);
    }
    const out = dst + <usize>y * <usize>dstStride;
    if (vPairs == 3) {
      // Six taps (every enlargement): row pointers and taps stay in registers over the whole row.
      const r0 = ring + <usize>(first % ringRows) * ringStride;
      const r1 = ring + <usize>((first + 2) % ringRows) * ringStride;
      const r2 = ring + <usize>((first + 4) % ringRows) * ringStride;
      const w0 = v128.load32_splat(weights), w1 = v128.load32_splat(weights, 4), w2 = v128.load32_splat(weights, 8);
      for (let x: usize = 0; x < ringStride; x += 32) {
        const low = i32x4.add(
          i32x4.add(i32x4.dot_i16x8_s(v128.load(r0 + x), w0), i32x4.dot_i16x8_s(v128.load(r1 + x), w1)),
          i32x4.add(i32x4.dot_i16x8_s(v128.load(r2 + x), w2), round),
        );
        const high = i32x4.add(
          i32x4.add(i32x4.dot_i16x8_s(v128.load(r0 + x, 16), w0), i32x4.dot_i16x8_s(v128.load(r1 + x, 16), w1)),
          i32x4.add(i32x4.dot_i16x8_s(v128.load(r2 + x, 16), w2), round),
        );
        storeEight(out + (x >> 2), low, high);
      }
      continue;
    }
    for (let x: usize = 0; x < ringStride; x += 32) {
      let low = round, high = round;
      for (let p = 0; p < vPairs; p++) {
        const from = ring + <usize>((first + 2 * p) % ringRows) * ringStride + x;
        const pair = v128.load32_splat(weights + (<usize>p << 2));
        low = i32x4.add(low, i32x4.dot_i16x8_s(v128.load(from), pair));
        high = i32x4.add(high, i32x4.dot_i16x8_s(v128.load(from, 16), pair));
      }
      storeEight(out + (x >> 2), low, high);
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
