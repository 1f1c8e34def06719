import type { Rect, Size } from '@core/picture/size';
import { plannedFrame, type RenderPlan } from '@core/render/plan';
import type { Source } from '@core/master/source';
import { TroubleError } from '@core/trouble/trouble';
import { MasterReader } from '../read/master-reader';
import { FrameRenderer } from './frame-renderer';

/** A still of a clip: a frame of a plan, as an export draws it. */
export interface CoverRequest {
  plan: RenderPlan;
  /** Number of the plan's output frame. */
  frame: number;
  /** The part of the canvas that is kept, 0…1 of it, and what it is made. */
  crop: Rect;
  size: Size;
  type: 'image/png' | 'image/jpeg';
  /** The most that a JPEG may have, in bytes; null for no limit. */
  mostBytes: number | null;
}

/** A JPEG that is too large is made again at the next of these. */
const QUALITIES = [0.92, 0.85, 0.75, 0.6, 0.4];

/** Draws a still. @throws TroubleError `damaged` where its frame cannot be decoded, and what drawing throws. */
export async function makeCover({ plan, frame, crop, size, type, mostBytes }: CoverRequest): Promise<Blob> {
  const planned = plannedFrame(plan, frame);
  const source = plan.sources[planned.source] as Source;
  const reader = await MasterReader.open(source);
  try {
    const sample = await reader.frame(planned.masterFrame);
    if (!sample) {
      const detail = `frame ${planned.masterFrame} is missing`;
      throw new TroubleError('damaged', { file: source.fileName, detail });
    }
    const decoded = sample.toVideoFrame();
    sample.close();
    try {
      const drawn = await (await FrameRenderer.create(plan)).draw(decoded, planned, 0, 0);
      try {
        return await encodeStill(drawn, plan, { crop, size, type, mostBytes });
      } finally {
        drawn.close();
      }
    } finally {
      decoded.close();
    }
  } finally {
    reader.close();
  }
}

async function encodeStill(
  frame: VideoFrame,
  canvas: Size,
  { crop, size, type, mostBytes }: Omit<CoverRequest, 'plan' | 'frame'>,
): Promise<Blob> {
  const surface = new OffscreenCanvas(size.width, size.height);
  const ink = surface.getContext('2d', { alpha: false });
  if (!ink) throw new Error('this browser gives no 2D canvas to a worker');
  ink.imageSmoothingQuality = 'high';
  ink.drawImage(
    frame,
    crop.x * canvas.width,
    crop.y * canvas.height,
    crop.width * canvas.width,
    crop.height * canvas.height,
    0,
    0,
    size.width,
    size.height,
  );
  if (type === 'image/png') return surface.convertToBlob({ type });
  let still = await surface.convertToBlob({ type, quality: QUALITIES[0] });
  for (const quality of QUALITIES.slice(1)) {
    if (mostBytes === null || still.size <= mostBytes) break;
    still = await surface.convertToBlob({ type, quality });
  }
  return still;
}
