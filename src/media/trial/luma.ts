import type { GreyPlane } from '@core/picture/likeness';
import type { Size } from '@core/picture/size';
import type { Turn } from '@core/proof/thumb';

/** Luma of a frame, in the codes of limited-range BT.709. The frame stays the caller's to close. */
export async function readLuma(frame: VideoFrame): Promise<GreyPlane> {
  const { width, height } = frame.visibleRect ?? { width: frame.codedWidth, height: frame.codedHeight };
  const bytes = new Uint8Array(frame.allocationSize());
  const [first] = await frame.copyTo(bytes);
  const { offset, stride } = first ?? { offset: 0, stride: width };
  const data = new Uint8Array(width * height);
  const order = PACKED[frame.format ?? ''];
  for (let y = 0; y < height; y++) {
    const row = bytes.subarray(offset + y * stride, offset + (y + 1) * stride);
    if (!order) data.set(row.subarray(0, width), y * width);
    else for (let x = 0; x < width; x++) data[y * width + x] = lumaOfRgb(row, 4 * x, order);
  }
  return { data, width, height };
}

/** Where red and blue lie in packed pixels. */
const PACKED: Record<string, { red: number; blue: number }> = {
  RGBA: { red: 0, blue: 2 },
  RGBX: { red: 0, blue: 2 },
  BGRA: { red: 2, blue: 0 },
  BGRX: { red: 2, blue: 0 },
};

/** Source: ITU-R BT.709-6, 3.2 and 3.4. */
function lumaOfRgb(row: Uint8Array, at: number, { red, blue }: { red: number; blue: number }): number {
  const [r, g, b] = [row[at + red] as number, row[at + 1] as number, row[at + blue] as number];
  return Math.round(16 + (219 * (0.2126 * r + 0.7152 * g + 0.0722 * b)) / 255);
}

/** A frame in another size, with its times; the caller closes both. */
export const resizeFrame = (frame: VideoFrame, size: Size): VideoFrame =>
  turnBack(frame, { quarters: 0, mirrored: false }, size);

/** A frame as it stands once its file's quarter turns are done, in a size; the caller closes both. */
export const turnUpright = (frame: VideoFrame, { width, height }: Size, quarters: number): VideoFrame =>
  turnBack(frame, { quarters: quarters as Turn['quarters'], mirrored: false }, { width, height });

/** A frame turned, then in another size, with its times; the caller closes both. */
export function turnBack(frame: VideoFrame, { quarters, mirrored }: Turn, size: Size): VideoFrame {
  const { width, height } = size;
  const surface = new OffscreenCanvas(width, height);
  const ink = surface.getContext('2d', { alpha: false });
  if (!ink) throw new Error('this browser gives no 2D canvas to a worker');
  ink.imageSmoothingQuality = 'high';
  ink.translate(width / 2, height / 2);
  if (mirrored) ink.scale(-1, 1);
  ink.rotate((quarters * Math.PI) / 2);
  const [across, down] = quarters % 2 === 0 ? [width, height] : [height, width];
  ink.drawImage(frame, -across / 2, -down / 2, across, down);
  const { timestamp, duration } = frame;
  return new VideoFrame(surface, { timestamp, ...(duration === null ? {} : { duration }) });
}

/** A frame as a picture without loss. The frame stays the caller's to close. */
export async function encodePng(frame: VideoFrame): Promise<Blob> {
  const surface = new OffscreenCanvas(frame.displayWidth, frame.displayHeight);
  const ink = surface.getContext('2d', { alpha: false });
  if (!ink) throw new Error('this browser gives no 2D canvas to a worker');
  ink.drawImage(frame, 0, 0);
  return surface.convertToBlob({ type: 'image/png' });
}
