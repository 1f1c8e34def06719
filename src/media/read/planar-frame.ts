import type { ColourFacts } from '@kernel/colour';
import type { Kernel } from '@kernel/kernel';
import type { PlanarPicture, PlaneShape } from '@kernel/planes';

/** When a frame is shown and how long, in microseconds. */
interface FrameTimes {
  timestamp: number;
  duration?: number;
}

/**
 * A picture of the kernel as a frame to encode and to draw; the caller closes it. Its rows are handed over without
 * the kernel's padding: one engine takes no account of the strides that it is told.
 */
export function planarFrame(
  kernel: Kernel,
  picture: PlanarPicture,
  times: FrameTimes,
  colour: ColourFacts,
): VideoFrame {
  return new VideoFrame(tightBytes(kernel, picture), {
    format: picture.layout as VideoPixelFormat,
    codedWidth: picture.width,
    codedHeight: picture.height,
    ...times,
    colorSpace: colour as VideoColorSpaceInit,
  });
}

function tightBytes(kernel: Kernel, { bits, planes }: PlanarPicture): Uint8Array<ArrayBuffer> {
  const rowBytes = ({ width }: PlaneShape) => width * (bits === 8 ? 1 : 2);
  const bytes = new Uint8Array(planes.reduce((sum, plane) => sum + plane.height * rowBytes(plane), 0));
  let at = 0;
  for (const plane of planes) {
    const { offset, stride, height } = plane;
    const row = rowBytes(plane);
    const padded = kernel.bytes(offset, stride * height);
    for (let y = 0; y < height; y++, at += row) bytes.set(padded.subarray(y * stride, y * stride + row), at);
  }
  return bytes;
}
