import type { Source } from '@core/master/source';
import type { Rect, Size } from '@core/picture/size';
import { TroubleError } from '@core/trouble/trouble';
import { rgbToCodes } from '@kernel/colour';
import type { Kernel } from '@kernel/kernel';
import { isPixelLayout, type PixelLayout, type PlanarPicture } from '@kernel/planes';
import { measureMaxBlueOfCb } from './engine-colour';
import { PACKED, streamColour } from '@render/frame-colour';

/** The planes that a decoded frame is read as. @throws TroubleError `pixel-format` for one that cannot be read. */
export function toPixelLayout({ format }: VideoFrame): PixelLayout {
  if (isPixelLayout(format)) return format;
  if (format !== null && format in PACKED) return 'I444';
  throw new TroubleError('pixel-format', { format: format ?? 'an unknown pixel format' });
}

/** Size of the picture in a frame, as it is stored. */
export function storedSize(frame: VideoFrame): Size {
  const rect = frame.visibleRect;
  return rect
    ? { width: rect.width, height: rect.height }
    : { width: frame.codedWidth, height: frame.codedHeight };
}

/**
 * Copies a part of a frame into a picture in the kernel's memory; the frame stays the caller's to close.
 * @param part of the stored picture, in samples; the picture has its size.
 * @param source packed pixels are brought back to the codes of its stream.
 */
export async function copyPlanes(
  kernel: Kernel,
  picture: PlanarPicture,
  frame: VideoFrame,
  part: Rect,
  source: Source,
): Promise<void> {
  const rect = { ...part, x: part.x + (frame.visibleRect?.x ?? 0), y: part.y + (frame.visibleRect?.y ?? 0) };
  const blueFirst = PACKED[frame.format ?? ''];
  if (blueFirst === undefined) {
    const layout = picture.planes.map(({ offset, stride }) => ({ offset: offset - picture.address, stride }));
    await frame.copyTo(kernel.bytes(picture.address, picture.size), { rect, layout });
    return;
  }
  const { width, height } = part;
  const to = kernel.bytes(kernel.packed(width, height), width * height * 4);
  await frame.copyTo(to, { rect, layout: [{ offset: 0, stride: width * 4 }] });
  kernel.splitRgb(picture, rgbToCodes(streamColour(frame, source), measureMaxBlueOfCb()), blueFirst);
}
