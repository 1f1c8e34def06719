import type { VideoSample } from 'mediabunny';
import type { Master } from '@core/job/master';
import { MasterReader } from './master-reader';
import { throwIfStopped, type TaskContext } from './serve-task';
import { storedFile, writeSmall } from './storage';

/** Small pictures of some frames of a master. */
export interface StillsRequest {
  master: Master;
  frames: number[];
  /** Rows of each picture. */
  height: number;
}

const QUALITY = 0.8;

/**
 * Tells each frame's JPEG: stored ones at once, then for the others a near key frame, then the frame itself, which
 * takes longer to decode and is stored.
 */
export async function makeStills(
  { master, frames, height }: StillsRequest,
  context: TaskContext,
): Promise<number> {
  const nameOf = (frame: number) => `${master.fingerprint}-${height}-${frame}.jpg`;
  const missing: number[] = [];
  for (const frame of frames) {
    const still = await storedFile('stills', nameOf(frame));
    if (still) context.report({ frame, still });
    else missing.push(frame);
  }
  if (missing.length === 0) return frames.length;
  const reader = await MasterReader.open(master);
  try {
    for (const exact of [false, true]) {
      for (const frame of missing) {
        throwIfStopped(context.signal);
        const still = await drawStill(
          await (exact ? reader.frame(frame) : reader.nearFrame(frame)),
          master,
          height,
        );
        if (!still) continue;
        if (exact) await writeSmall('stills', nameOf(frame), still);
        context.report({ frame, still });
      }
    }
    return frames.length;
  } finally {
    reader.close();
  }
}

/** Draws a sample, and closes it. */
async function drawStill(sample: VideoSample | null, master: Master, height: number): Promise<Blob | null> {
  if (!sample) return null;
  try {
    const { picture } = master;
    const width = Math.max(1, Math.round((height * picture.width) / picture.height));
    const canvas = new OffscreenCanvas(width, height);
    const ink = canvas.getContext('2d');
    if (!ink) return null;
    sample.draw(ink, 0, 0, width, height);
    return await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY });
  } finally {
    sample.close();
  }
}
