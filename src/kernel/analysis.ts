import { COMB_STEP, type Kernel } from './kernel';
import type { PlanarPicture, PlaneShape } from './planes';

const plane = (picture: PlanarPicture, index: number): PlaneShape => {
  const found = picture.planes[index];
  if (!found) throw new RangeError(`the picture has no plane ${index}`);
  return found;
};

/**
 * A 4:2:0 picture at half its size; sides round down to even ones. Stays valid until the next halving into the same
 * block.
 */
export function halvePicture(kernel: Kernel, picture: PlanarPicture, block: string): PlanarPicture {
  const even = (side: number) => Math.floor(side / 4) * 2;
  const out = kernel.picture(block, 'I420', even(picture.width), even(picture.height), 32);
  out.planes.forEach((to, i) => {
    const from = plane(picture, i);
    kernel.exports.halvePlane(from.offset, from.stride, to.offset, to.stride, to.width, to.height);
  });
  return { ...out, siting: picture.siting };
}

/**
 * A small grey copy of the luma, about `side` samples along its longer side, rows without padding; what does not
 * fill a sample at the edges falls away.
 */
export function greyCopy(
  kernel: Kernel,
  picture: PlanarPicture,
  side: number,
): { width: number; height: number; data: Uint8Array<ArrayBuffer> } {
  let luma = plane(picture, 0);
  let factor = Math.max(1, Math.round(Math.max(luma.width, luma.height) / side));
  if (factor % 2 === 0) {
    // Halving is the quick way for the first factor of two.
    const half = { width: Math.floor(luma.width / 2), height: Math.floor(luma.height / 2) };
    const stride = Math.ceil(half.width / 32) * 32;
    const address = kernel.block('grey-half', stride * half.height + 64);
    kernel.exports.halvePlane(luma.offset, luma.stride, address, stride, half.width, half.height);
    luma = { offset: address, stride, ...half };
    factor /= 2;
  }
  const width = Math.floor(luma.width / factor);
  const height = Math.floor(luma.height / factor);
  const address = kernel.block('grey', width * height);
  kernel.exports.boxPlane(luma.offset, luma.stride, address, width, height, factor);
  return { width, height, data: kernel.bytes(address, width * height).slice() };
}

/** How many samples of each row and of each column are brighter than a level. @param level 0…127. */
export function brightCounts(
  kernel: Kernel,
  picture: PlanarPicture,
  level: number,
): { rows: Int32Array; columns: Int32Array } {
  const { offset, stride, width, height } = plane(picture, 0);
  const padded = Math.ceil(width / 16) * 16;
  const rows = kernel.block('bright-rows', height * 4);
  const columns = kernel.block('bright-columns', padded * 4);
  kernel.exports.countBright(offset, stride, width, height, level, rows, columns);
  const readValues = (address: number, count: number) => {
    const bytes = kernel.bytes(address, count * 4);
    return new Int32Array(bytes.buffer, address, count).slice();
  };
  return { rows: readValues(rows, height), columns: readValues(columns, width) };
}

/** The share of samples that comb, 0…1: a still picture and one shot in whole frames have almost none. */
export function combShare(kernel: Kernel, picture: PlanarPicture): number {
  const { offset, stride, width, height } = plane(picture, 0);
  const count = kernel.exports.countComb(offset, stride, width, height, COMB_STEP);
  return count / Math.max(1, (Math.floor(width / 16) * 16 * height) / 2);
}

/**
 * Measures which field comes first, from two frames in a row that move: over 1 the top field, below 1 the
 * bottom field. The second field of a frame is nearer in time to the first field of the next than the other
 * way round.
 */
export function topFieldFirst(kernel: Kernel, before: PlanarPicture, after: PlanarPicture): number {
  const a = plane(before, 0);
  const b = plane(after, 0);
  const between = (parity: number) =>
    kernel.exports.fieldDistance(a.offset, b.offset, a.stride, a.width, a.height, parity);
  return (between(0) + 1) / (between(1) + 1);
}
