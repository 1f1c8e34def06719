/** Codes from a node of the cube to the next. */
const STEP: f32 = 4;

/**
 * The colour of a sample in a cube of n × n × n nodes of four f32 (Y, Cb, Cr, nothing), between its eight nodes.
 * @param yStep bytes from a node to the next in luma; @param uStep in Cb; the next in Cr is 16 bytes away.
 */
@inline
function inCube(cube: usize, yStep: usize, uStep: usize, y: f32, u: f32, v: f32): v128 {
  const fy = y / STEP, fu = u / STEP, fv = v / STEP;
  const iy = <usize>fy, iu = <usize>fu, iv = <usize>fv;
  const ty = f32x4.splat(fy - <f32>iy), tu = f32x4.splat(fu - <f32>iu), tv = f32x4.splat(fv - <f32>iv);
  const a = cube + iy * yStep + iu * uStep + (iv << 4);
  const b = a + yStep;
  const a0 = mix(v128.load(a), v128.load(a + 16), tv);
  const a1 = mix(v128.load(a + uStep), v128.load(a + uStep + 16), tv);
  const b0 = mix(v128.load(b), v128.load(b + 16), tv);
  const b1 = mix(v128.load(b + uStep), v128.load(b + uStep + 16), tv);
  return mix(mix(a0, a1, tu), mix(b0, b1, tu), ty);
}

@inline
function mix(a: v128, b: v128, t: v128): v128 {
  return f32x4.add(a, f32x4.mul(f32x4.sub(b, a), t));
}

@inline
function toByte(value: f32): u8 {
  return <u8>max<f32>(0, min<f32>(255, value + 0.5));
}

/**
 * Maps 4:2:0 planes in place through a cube of n nodes a side. Luma takes chroma interpolated at left siting; chroma
 * takes the mean of its four lumas.
 */
export function mapColour(yPlane: usize, yStride: i32, u: usize, v: usize, cStride: i32, width: i32, height: i32, cube: usize, n: i32): void {
  const uStep = <usize>n << 4, yStep = <usize>n * uStep;
  const last = (width >> 1) - 1;
  for (let cy = 0; cy < height >> 1; cy++) {
    const uRow = u + <usize>(cy * cStride), vRow = v + <usize>(cy * cStride);
    const top = yPlane + <usize>(cy * 2 * yStride), bottom = top + <usize>yStride;
    // A chroma sample is still wanted by the luma before it: what it becomes waits for one step.
    let waitU: u8 = 0, waitV: u8 = 0;
    for (let cx = 0; cx <= last; cx++) {
      const x = <usize>(cx << 1), next = <usize>min(last, cx + 1);
      const cb = <f32>load<u8>(uRow + <usize>cx), cr = <f32>load<u8>(vRow + <usize>cx);
      const cbNext = (cb + <f32>load<u8>(uRow + next)) * 0.5, crNext = (cr + <f32>load<u8>(vRow + next)) * 0.5;
      const a = <f32>load<u8>(top + x), b = <f32>load<u8>(top + x + 1);
      const c = <f32>load<u8>(bottom + x), d = <f32>load<u8>(bottom + x + 1);
      store<u8>(top + x, toByte(f32x4.extract_lane(inCube(cube, yStep, uStep, a, cb, cr), 0)));
      store<u8>(top + x + 1, toByte(f32x4.extract_lane(inCube(cube, yStep, uStep, b, cbNext, crNext), 0)));
      store<u8>(bottom + x, toByte(f32x4.extract_lane(inCube(cube, yStep, uStep, c, cb, cr), 0)));
      store<u8>(bottom + x + 1, toByte(f32x4.extract_lane(inCube(cube, yStep, uStep, d, cbNext, crNext), 0)));
      const chroma = inCube(cube, yStep, uStep, (a + b + c + d) * 0.25, cb, cr);
      if (cx > 0) {
        store<u8>(uRow + <usize>cx - 1, waitU);
        store<u8>(vRow + <usize>cx - 1, waitV);
      }
      waitU = toByte(f32x4.extract_lane(chroma, 1));
      waitV = toByte(f32x4.extract_lane(chroma, 2));
    }
    store<u8>(uRow + <usize>last, waitU);
    store<u8>(vRow + <usize>last, waitV);
  }
}
