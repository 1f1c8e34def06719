/** Samples are kept with so many fraction bits between the passes. */
const FRACTION: i32 = 6;
/** Half a code with them. */
const HALF: i16 = 32;

/** Blurs one row of a plane: sixteen-bit samples. @param padded room for the row with its edges repeated. */
function blurRow(src: usize, width: i32, weights: usize, radius: i32, padded: usize, out: usize): void {
  memory.fill(padded, load<u8>(src), radius);
  memory.copy(padded + <usize>radius, src, width);
  memory.fill(padded + <usize>(radius + width), load<u8>(src + <usize>(width - 1)), radius + 8);
  const taps = 2 * radius + 1;
  for (let x = 0; x < width; x += 8) {
    let sum = i16x8.splat(0);
    for (let k = 0; k < taps; k++) {
      const samples = i16x8.extend_low_i8x16_u(v128.load64_zero(padded + <usize>(x + k)));
      const weight = i16x8.splat(load<i16>(weights + ((<usize>k) << 1)));
      sum = i16x8.add(sum, i16x8.q15mulr_sat_s(i16x8.shl(samples, FRACTION), weight));
    }
    v128.store(out + ((<usize>x) << 1), sum);
  }
}

/**
 * Sharpens a plane in place by an unsharp mask: what a sample differs from the blur around it is added to it, where it
 * differs by more than a threshold. Edges repeat.
 * @param weights of the blur, 2 · radius + 1 of them in 1/32768. @param amount half of it in 1/32768.
 * @param threshold in codes. @param ring room for 2 · radius + 1 blurred rows. @param ringStride in bytes.
 */
export function sharpenPlane(
  plane: usize,
  stride: i32,
  width: i32,
  height: i32,
  weights: usize,
  radius: i32,
  amount: i32,
  threshold: i32,
  padded: usize,
  ring: usize,
  ringStride: i32,
): void {
  const rows = 2 * radius + 1;
  const amounts = i16x8.splat(<i16>amount),
    least = i16x8.splat(<i16>(threshold << FRACTION));
  const half = i16x8.splat(HALF),
    black = i16x8.splat(1),
    white = i16x8.splat(254);
  let blurred = 0;
  for (let y = 0; y < height; y++) {
    for (; blurred <= min(y + radius, height - 1); blurred++) {
      blurRow(
        plane + <usize>(blurred * stride),
        width,
        weights,
        radius,
        padded,
        ring + <usize>((blurred % rows) * ringStride),
      );
    }
    const row = plane + <usize>(y * stride);
    for (let x = 0; x < width; x += 8) {
      let blur = i16x8.splat(0);
      for (let k = 0; k < rows; k++) {
        const from = max(0, min(height - 1, y + k - radius)) % rows;
        const samples = v128.load(ring + <usize>(from * ringStride) + ((<usize>x) << 1));
        blur = i16x8.add(
          blur,
          i16x8.q15mulr_sat_s(samples, i16x8.splat(load<i16>(weights + ((<usize>k) << 1)))),
        );
      }
      const codes = i16x8.extend_low_i8x16_u(v128.load64_zero(row + <usize>x));
      const wide = i16x8.shl(codes, FRACTION);
      const off = i16x8.sub(wide, blur);
      const more = i16x8.q15mulr_sat_s(off, amounts);
      const sum = i16x8.add_sat_s(i16x8.add_sat_s(i16x8.add_sat_s(wide, more), more), half);
      // 0 and 255 are no codes of a picture (ITU-R BT.709-6, 4.6).
      const sharp = i16x8.max_s(black, i16x8.min_s(white, i16x8.shr_s(sum, FRACTION)));
      const out = v128.bitselect(sharp, codes, i16x8.gt_s(i16x8.abs(off), least));
      const bytes = i8x16.narrow_i16x8_u(out, out);
      if (x + 8 <= width) v128.store64_lane(row + <usize>x, bytes, 0);
      else {
        v128.store64_lane(padded, bytes, 0);
        memory.copy(row + <usize>x, padded, width - x);
      }
    }
  }
}
