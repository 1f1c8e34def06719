/** Distances between unsigned bytes. */
@inline
export function distance(a: v128, b: v128): v128 {
  return v128.or(i8x16.sub_sat_u(a, b), i8x16.sub_sat_u(b, a));
}
