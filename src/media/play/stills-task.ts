import type { VideoSample } from 'mediabunny';
import { WHOLE } from '@core/framing/window';
import type { Source } from '@core/master/source';
import { stillName } from '@core/master/still-name';
import { drawUpright } from './draw-upright';
import { MasterReader } from '../read/master-reader';
import { toPreviewPicture } from './preview-picture';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import { storedFile, writeSmall } from '../store/storage';

/** Small pictures of some frames of a master. */
export interface StillsRequest {
  source: Source;
  frames: number[];
  /** Rows of each picture. */
  height: number;
}

/** A still that was made. */
export interface Still {
  frame: number;
  still: Blob;
}

const QUALITY = 0.8;

/**
 * Tells each frame's JPEG: stored ones at once, then for the others a near key frame, then the frame itself, which
 * takes longer to decode and is stored.
 */
export async function makeStills(
  { source, frames, height }: StillsRequest,
  context: TaskContext<Still>,
): Promise<number> {
  const toName = (frame: number) => stillName(source, height, frame);
  const missing: number[] = [];
  for (const frame of frames) {
    const still = await storedFile('stills', toName(frame));
    if (still) context.report({ frame, still });
    else missing.push(frame);
  }
  if (missing.length === 0) return frames.length;
  const reader = await MasterReader.open(source);
  try {
    for (const exact of [false, true]) {
      for (const frame of missing) {
        throwIfStopped(context.signal);
        const still = await drawStill(
          await (exact ? reader.frame(frame) : reader.nearFrame(frame)),
          source,
          height,
        );
        if (!still) continue;
        if (exact) await writeSmall('stills', toName(frame), still);
        context.report({ frame, still });
      }
    }
    return frames.length;
  } finally {
    reader.close();
  }
}

/** Draws a sample, and closes it. */
async function drawStill(sample: VideoSample | null, source: Source, height: number): Promise<Blob | null> {
  if (!sample) return null;
  const decoded = await toPreviewPicture(sample, source, true);
  try {
    const { picture } = source;
    const width = Math.max(1, Math.round((height * picture.width) / picture.height));
    const canvas = new OffscreenCanvas(width, height);
    const ink = canvas.getContext('2d');
    if (!ink) return null;
    drawUpright(ink, decoded, source, WHOLE, WHOLE, { x: 0, y: 0, width, height });
    return await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY });
  } finally {
    decoded.close();
  }
}
