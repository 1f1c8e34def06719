/** Sixteen-bit lanes divided by 255 and rounded; exact for values up to 65,025. */
@inline
function by255(value: v128): v128 {
  const t = i16x8.add(value, i16x8.splat(128));
  return i16x8.shr_u(i16x8.add(t, i16x8.shr_u(t, 8)), 8);
}

/** Blends one sample over another. @param part 0…256 of what lies over it. */
@inline
function over(under: u32, sample: u32, cover: u32, part: u32): u8 {
  const a = (cover * part + 128) >> 8;
  const s = (sample * part + 128) >> 8;
  const t = under * (255 - a) + 128;
  return <u8>min<u32>(255, s + ((t + (t >> 8)) >> 8));
}

/**
 * Lays premultiplied samples over a plane: s + d · (1 − a), where a is how much they cover (T. Porter and T. Duff,
 * "Compositing digital images", SIGGRAPH 1984: "over").
 * @param part of them that is there, 0…256.
 */
export function blendPlane(dst: usize, dstStride: i32, src: usize, cover: usize, srcStride: i32, width: i32, height: i32, part: i32): void {
  const parts = i16x8.splat(<i16>part), half = i16x8.splat(128), whole = i16x8.splat(255);
  for (let y = 0; y < height; y++) {
    const d = dst + <usize>(y * dstStride), s = src + <usize>(y * srcStride), c = cover + <usize>(y * srcStride);
    let x = 0;
    for (; x + 8 <= width; x += 8) {
      const at = <usize>x;
      const covers = v128.load64_zero(c + at);
      // Most of a box is empty.
      if (!v128.any_true(covers)) continue;
      const a = i16x8.shr_u(i16x8.add(i16x8.mul(i16x8.extend_low_i8x16_u(covers), parts), half), 8);
      const samples = i16x8.extend_low_i8x16_u(v128.load64_zero(s + at));
      const premultiplied = i16x8.shr_u(i16x8.add(i16x8.mul(samples, parts), half), 8);
      const under = i16x8.extend_low_i8x16_u(v128.load64_zero(d + at));
      const sum = i16x8.add(premultiplied, by255(i16x8.mul(under, i16x8.sub(whole, a))));
      v128.store64_lane(d + at, i8x16.narrow_i16x8_u(sum, sum), 0);
    }
    for (; x < width; x++) {
      const at = <usize>x;
      store<u8>(d + at, over(load<u8>(d + at), load<u8>(s + at), load<u8>(c + at), <u32>part));
    }
  }
}
