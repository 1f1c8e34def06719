import type { ColourFacts } from '@kernel/colour';
import type { Kernel } from '@kernel/kernel';
import type { PlanarPicture } from '@kernel/planes';
import { createTightBytes } from '@kernel/tight-bytes';

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
  return new VideoFrame(createTightBytes(kernel, picture), {
    format: picture.layout as VideoPixelFormat,
    codedWidth: picture.width,
    codedHeight: picture.height,
    ...times,
    colorSpace: colour as VideoColorSpaceInit,
  });
}
