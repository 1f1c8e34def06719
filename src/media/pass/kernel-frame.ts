import type { Source } from '@core/master/source';
import type { Kernel } from '@kernel/kernel';
import type { PlanarPicture } from '@kernel/planes';

/** A small picture of the kernel as a frame to encode and to draw, in the source's own colour. The caller closes it. */
export function kernelFrame(
  kernel: Kernel,
  picture: PlanarPicture,
  { colour }: Source,
  { seconds, duration = 0 }: { seconds: number; duration?: number },
): VideoFrame {
  const { width, height, planes } = picture;
  const first = Math.min(...planes.map((plane) => plane.offset));
  const end = Math.max(...planes.map((plane) => plane.offset + plane.stride * plane.height));
  return new VideoFrame(kernel.bytes(first, end - first), {
    format: 'I420',
    codedWidth: width,
    codedHeight: height,
    timestamp: Math.round(seconds * 1e6),
    duration: Math.round(duration * 1e6),
    layout: planes.map(({ offset, stride }) => ({ offset: offset - first, stride })),
    colorSpace: {
      primaries: (colour.primaries ?? 'bt709') as VideoColorPrimaries,
      transfer: (colour.transfer ?? 'bt709') as VideoTransferCharacteristics,
      matrix: (colour.matrix ?? 'bt709') as VideoMatrixCoefficients,
      fullRange: colour.fullRange ?? false,
    },
  });
}
