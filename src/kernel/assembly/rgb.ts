/**
 * Splits packed pixels of four bytes into planes of luma, Cb and Cr of full size.
 * @param m four vectors of four f32: what red, green and blue add to (Y, Cb, Cr, nothing), and the offset.
 * @param swapped whether blue comes first.
 */
export function rgbPlanes(
  src: usize,
  srcStride: i32,
  width: i32,
  height: i32,
  y: usize,
  u: usize,
  v: usize,
  stride: i32,
  m: usize,
  swapped: i32,
): void {
  const red = v128.load(m),
    green = v128.load(m, 16),
    blue = v128.load(m, 32);
  const first = swapped ? blue : red,
    last = swapped ? red : blue;
  const offset = v128.load(m, 48);
  const none = i32x4.splat(0),
    most = i32x4.splat(255);
  for (let row = 0; row < height; row++) {
    const from = src + <usize>(row * srcStride);
    const to = <usize>(row * stride);
    for (let x: usize = 0; x < <usize>width; x++) {
      const pixel = from + (x << 2);
      let sum = f32x4.add(offset, f32x4.mul(first, f32x4.splat(<f32>load<u8>(pixel))));
      sum = f32x4.add(sum, f32x4.mul(green, f32x4.splat(<f32>load<u8>(pixel, 1))));
      sum = f32x4.add(sum, f32x4.mul(last, f32x4.splat(<f32>load<u8>(pixel, 2))));
      const codes = i32x4.min_s(most, i32x4.max_s(none, i32x4.trunc_sat_f32x4_s(sum)));
      store<u8>(y + to + x, <u8>i32x4.extract_lane(codes, 0));
      store<u8>(u + to + x, <u8>i32x4.extract_lane(codes, 1));
      store<u8>(v + to + x, <u8>i32x4.extract_lane(codes, 2));
    }
  }
}
