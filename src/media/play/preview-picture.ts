import type { VideoSample } from 'mediabunny';
import PQueue from 'p-queue';
import type { Source } from '@core/master/source';
import type { Size } from '@core/picture/size';
import { createColourCube } from '@kernel/colour-cube';
import type { Kernel } from '@kernel/kernel';
import type { PlanarPicture } from '@kernel/planes';
import { toColourFacts, streamColour } from '@render/frame-colour';
import { planarFrame } from '../read/planar-frame';
import { copyPlanes, toPixelLayout, storedSize } from '../read/frame-planes';
import { openKernel } from '../read/open-kernel';

/** A decoded picture that can be drawn on a 2D canvas. */
export interface Picture {
  image: CanvasImageSource;
  /** As the canvas sees it. */
  size: Size;
  close(): void;
}

const BT709 = { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', fullRange: false } as const;

let kernel: Promise<Kernel> | null = null;
/** The kernel has one place for a picture: seeking and refining take turns. */
const turns = new PQueue({ concurrency: 1 });

/**
 * A sample as the canvas draws it, with the source's repairs of colour and fields. It is converted once, whatever is
 * drawn of it. Takes the sample over.
 */
export async function toPreviewPicture(
  sample: VideoSample,
  source: Source,
  whole: boolean,
): Promise<Picture> {
  const frame = sample.toVideoFrame();
  try {
    const fields = whole && source.deinterlace;
    const cube = createColourCube(toColourFacts(frame, source));
    if (!fields && !cube && !isRecoloured(frame, source)) return await toBitmap(frame);
    const mended = await turns.add(() => repairPicture(frame, source, { fields, cube }), {
      throwOnTimeout: true,
    });
    try {
      return await toBitmap(mended);
    } finally {
      mended.close();
    }
  } finally {
    frame.close();
    sample.close();
  }
}

async function toBitmap(frame: VideoFrame): Promise<Picture> {
  const image = await createImageBitmap(frame);
  return { image, size: { width: image.width, height: image.height }, close: () => image.close() };
}

/** Tells whether the source's colour is another than the engine took the stream for. */
function isRecoloured(frame: VideoFrame, source: Source): boolean {
  const { matrix, fullRange } = streamColour(frame, source);
  const other = (ours: unknown, its: unknown) => ours !== null && its != null && ours !== its;
  return other(source.colour.matrix, matrix) || other(source.colour.fullRange, fullRange);
}

async function repairPicture(
  frame: VideoFrame,
  source: Source,
  { fields, cube }: { fields: boolean; cube: Float32Array | null },
): Promise<VideoFrame> {
  kernel ??= openKernel();
  const loaded = await kernel;
  const { width, height } = storedSize(frame);
  const stored = loaded.source(toPixelLayout(frame), width, height);
  await copyPlanes(loaded, stored, frame, { x: 0, y: 0, width, height }, source);
  const whole = fields ? loaded.deinterlaced(stored, false) : loaded.planar(stored);
  const drawn = cube ? mapColours(loaded, whole, cube) : whole;
  const colour = cube ? BT709 : toColourFacts(frame, source);
  return planarFrame(loaded, drawn, { timestamp: frame.timestamp }, colour);
}

/** A picture in BT.709 through a cube, in 4:2:0 as the export has it. */
function mapColours(loaded: Kernel, picture: PlanarPicture, cube: Float32Array): PlanarPicture {
  const even = (side: number) => side - (side % 2);
  const size = { width: even(picture.width), height: even(picture.height) };
  const target = loaded.target(size.width, size.height);
  loaded.scale(picture, { x: 0, y: 0, ...size }, target, { x: 0, y: 0, ...size });
  loaded.map(target, cube);
  return target;
}
