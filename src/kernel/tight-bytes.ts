import type { Kernel } from './kernel';
import type { PlanarPicture, PlaneShape } from './planes';

/**
 * The samples of a picture in the kernel's memory, plane after plane, without the padding of their rows.
 * @param into where they go, where it has their size; else they get room of their own.
 */
export function createTightBytes(
  kernel: Kernel,
  { bits, planes }: PlanarPicture,
  into?: Uint8Array<ArrayBuffer>,
): Uint8Array<ArrayBuffer> {
  const rowBytes = ({ width }: PlaneShape) => width * (bits === 8 ? 1 : 2);
  const size = planes.reduce((sum, plane) => sum + plane.height * rowBytes(plane), 0);
  const bytes = into?.length === size ? into : new Uint8Array(size);
  let at = 0;
  for (const plane of planes) {
    const { offset, stride, height } = plane;
    const row = rowBytes(plane);
    const padded = kernel.bytes(offset, stride * height);
    for (let y = 0; y < height; y++, at += row) bytes.set(padded.subarray(y * stride, y * stride + row), at);
  }
  return bytes;
}
