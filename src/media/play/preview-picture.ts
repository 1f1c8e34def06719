import type { VideoSample } from 'mediabunny';
import type { Source } from '@core/master/source';
import type { Size } from '@core/picture/size';
import { Kernel } from '@kernel/kernel';
import kernelUrl from '@kernel/kernel.wasm';
import { isPixelLayout } from '@kernel/planes';

/** A decoded picture that can be drawn on a 2D canvas. */
export interface Picture {
  image: CanvasImageSource;
  /** As the canvas sees it. */
  size: Size;
  close(): void;
}

let kernel: Promise<Kernel> | null = null;

/** A sample as the canvas draws it, with the source's repairs of colour and fields. Takes the sample over. */
export async function pictureOf(sample: VideoSample, source: Source, whole: boolean): Promise<Picture> {
  const plain: Picture = {
    image: sample.toCanvasImageSource(),
    size: { width: sample.squarePixelWidth, height: sample.squarePixelHeight },
    close: () => sample.close(),
  };
  const fields = whole && source.deinterlace;
  if (!fields && !recoloured(sample, source)) return plain;
  const frame = sample.toVideoFrame();
  try {
    return isPixelLayout(frame.format) ? await repaired(frame, frame.format, source, fields) : plain;
  } finally {
    frame.close();
    sample.close();
  }
}

/** Whether the source's colour is another than the stream itself says. */
function recoloured({ colorSpace }: VideoSample, { colour }: Source): boolean {
  const { matrix, fullRange } = colour;
  const other = (ours: unknown, its: unknown) => ours !== null && its !== null && ours !== its;
  return other(matrix, colorSpace.matrix) || other(fullRange, colorSpace.fullRange);
}

async function repaired(
  frame: VideoFrame,
  format: Parameters<Kernel['source']>[0],
  { colour }: Source,
  fields: boolean,
): Promise<Picture> {
  kernel ??= fetch(kernelUrl)
    .then((response) => response.arrayBuffer())
    .then((bytes) => Kernel.load(bytes));
  const loaded = await kernel;
  const { width, height } = frame.visibleRect ?? { width: frame.codedWidth, height: frame.codedHeight };
  const stored = loaded.source(format, width, height);
  await frame.copyTo(loaded.bytes(stored.address, stored.size), {
    layout: stored.planes.map(({ offset, stride }) => ({ offset: offset - stored.address, stride })),
  });
  const drawn = fields ? loaded.deinterlaced(stored, false) : loaded.planar(stored);
  const bytes = new Uint8Array(drawn.planes.reduce((sum, plane) => sum + plane.stride * plane.height, 0));
  let end = 0;
  const layout = drawn.planes.map(({ offset, stride, height: rows }) => {
    bytes.set(loaded.bytes(offset, stride * rows), end);
    const plane = { offset: end, stride };
    end += stride * rows;
    return plane;
  });
  const image = new VideoFrame(bytes, {
    format: drawn.layout as VideoPixelFormat,
    codedWidth: width,
    codedHeight: height,
    timestamp: frame.timestamp,
    layout,
    colorSpace: {
      primaries: frame.colorSpace.primaries,
      transfer: frame.colorSpace.transfer,
      matrix: (colour.matrix ?? frame.colorSpace.matrix) as VideoMatrixCoefficients | null,
      fullRange: colour.fullRange ?? frame.colorSpace.fullRange,
    },
  });
  return { image, size: { width, height }, close: () => image.close() };
}
