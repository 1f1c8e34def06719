// Fields drawn anew where they comb.

import { distance } from './distance';

/** Eight samples between four rows by the cubic (−1, 9, 9, −1) / 16, as 16-bit numbers. */
@inline
function cubic(a: v128, b: v128, outer: v128): v128 {
  const nine = i16x8.mul(i16x8.add(a, b), i16x8.splat(9));
  return i16x8.shr_s(i16x8.add(i16x8.sub(nine, outer), i16x8.splat(8)), 4);
}

/**
 * Draws the odd rows of a plane anew where they comb, from the even rows beside them; the even rows are copied.
 * A sample stays where it lies between its neighbours, and where neither it nor they changed by more than `step`
 * since `before` (0 for none); else it is taken along the direction in which the rows beside it agree best: straight
 * up and down through four rows, since two would blur. src needs a byte of slack before its first row.
 */
export function deinterlacePlane(src: usize, before: usize, dst: usize, stride: i32, width: i32, height: i32, step: i32): void {
  const by = i8x16.splat(<i8>step);
  const between = i8x16.splat(<i8>(step >> 2));
  const bias = i8x16.splat(4);
  for (let y = 0; y < height; y++) {
    const row = src + <usize>(y * stride), out = dst + <usize>(y * stride);
    if ((y & 1) == 0) {
      memory.copy(out, row, <usize>width);
      continue;
    }
    const up = <usize>stride;
    const down: isize = y + 1 < height ? <isize>stride : -<isize>stride;
    const farUp = y > 2 ? 3 * up : up;
    const farDown: isize = y + 3 < height ? 3 * <isize>stride : down;
    for (let x = 0; x < width; x += 16) {
      const at = row + <usize>x;
      const c = v128.load(at), a = v128.load(at - up), b = v128.load(at + down);
      const lower = i8x16.min_u(a, b), upper = i8x16.max_u(a, b);
      let stays = v128.and(i8x16.le_u(c, i8x16.add_sat_u(upper, between)), i8x16.ge_u(c, i8x16.sub_sat_u(lower, between)));
      if (before != 0) {
        const was = before + <usize>(y * stride + x);
        const change = i8x16.max_u(
          distance(c, v128.load(was)),
          i8x16.max_u(distance(a, v128.load(was - up)), distance(b, v128.load(was + down))),
        );
        stays = v128.or(stays, i8x16.le_u(change, by));
      }
      const aFar = v128.load(at - farUp), bFar = v128.load(at + farDown);
      const low = cubic(
        i16x8.extend_low_i8x16_u(a), i16x8.extend_low_i8x16_u(b),
        i16x8.add(i16x8.extend_low_i8x16_u(aFar), i16x8.extend_low_i8x16_u(bFar)),
      );
      const high = cubic(
        i16x8.extend_high_i8x16_u(a), i16x8.extend_high_i8x16_u(b),
        i16x8.add(i16x8.extend_high_i8x16_u(aFar), i16x8.extend_high_i8x16_u(bFar)),
      );
      const through = i8x16.narrow_i16x8_u(low, high);
      const aLeft = v128.load(at - up - 1), aRight = v128.load(at - up + 1);
      const bLeft = v128.load(at + down - 1), bRight = v128.load(at + down + 1);
      const straight = i8x16.sub_sat_u(distance(a, b), bias);
      const falling = distance(aLeft, bRight), rising = distance(aRight, bLeft);
      const slant = v128.bitselect(i8x16.avgr_u(aLeft, bRight), i8x16.avgr_u(aRight, bLeft), i8x16.le_u(falling, rising));
      const useSlant = i8x16.lt_u(i8x16.min_u(falling, rising), straight);
      v128.store(out + <usize>x, v128.bitselect(c, v128.bitselect(slant, through, useSlant), stays));
    }
  }
}
