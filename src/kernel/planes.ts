/** Pixel layouts that the kernel reads; the names are those of the WebCodecs specification. */
const PIXEL_LAYOUTS = [
  'I420',
  'NV12',
  'I422',
  'I444',
  'I420P10',
  'I422P10',
  'I444P10',
  'I420P12',
  'I422P12',
  'I444P12',
] as const;
export type PixelLayout = (typeof PIXEL_LAYOUTS)[number];

/** Tells whether the kernel can read a decoder's pixel format. */
export function isPixelLayout(format: string | null): format is PixelLayout {
  return (PIXEL_LAYOUTS as readonly (string | null)[]).includes(format);
}

/** A rectangle of a picture, in its luma samples, sub-pixel; y down. */
export interface SampleWindow {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Shape of a plane in a block of bytes. */
export interface PlaneShape {
  /** Bytes from the block's start. */
  offset: number;
  /** Bytes from a row to the next. */
  stride: number;
  /** Samples in a row. */
  width: number;
  /** Rows. */
  height: number;
}

/** Planes of a picture in a block of bytes. */
export interface PlanarPicture {
  /** Where the block starts; the planes' offsets count from the same zero. */
  address: number;
  layout: PixelLayout;
  /** Luma samples across. */
  width: number;
  /** Luma rows. */
  height: number;
  /** Significant bits of a sample: 8 in one byte, 10 or 12 in two. */
  bits: 8 | 10 | 12;
  planes: PlaneShape[];
  /** Bytes of the whole block. */
  size: number;
  /** Where chroma lies across: `left` is H.264's default. */
  siting: 'left' | 'turned';
  /** Luma samples that the first chroma sample lacks: 1 where an odd side was turned round. */
  lead?: { across: 0 | 1; down: 0 | 1 } | undefined;
  /** The part that may be read, in luma samples; all of it where there is none. */
  live?: SampleWindow | undefined;
}

/**
 * The planes of a picture, one after another. Odd sizes round chroma up, as decoders do.
 *
 * @param width luma samples, 1…16384. @param height luma rows, 1…16384.
 * @param strideStep rows are padded to a multiple of this many bytes; 1 for none.
 * @throws RangeError when a size is out of its range.
 */
export function pictureShape(
  layout: PixelLayout,
  width: number,
  height: number,
  strideStep: number,
): PlanarPicture {
  for (const size of [width, height]) {
    if (!Number.isInteger(size) || size < 1 || size > 16384) {
      throw new RangeError(`a picture's sides must be 1 to 16384 samples, not ${width}×${height}`);
    }
  }
  const bits = layout.endsWith('P10') ? 10 : layout.endsWith('P12') ? 12 : 8;
  const bytes = bits === 8 ? 1 : 2;
  const halfWidth = Math.ceil(width / 2);
  const chromaWidth = layout.startsWith('I444') ? width : halfWidth;
  const chromaHeight = layout.startsWith('I420') || layout === 'NV12' ? Math.ceil(height / 2) : height;
  const planes: PlaneShape[] = [];
  let offset = 0;
  const add = (samples: number, rows: number, bytesPerSample: number) => {
    const stride = Math.ceil((samples * bytesPerSample) / strideStep) * strideStep;
    planes.push({ offset, stride, width: samples, height: rows });
    offset += stride * rows;
  };
  add(width, height, bytes);
  if (layout === 'NV12') add(chromaWidth, chromaHeight, 2);
  else for (let i = 0; i < 2; i++) add(chromaWidth, chromaHeight, bytes);
  return { address: 0, layout, width, height, bits, planes, size: offset, siting: 'left' };
}
