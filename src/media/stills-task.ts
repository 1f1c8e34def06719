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

/** Draws stills that are not stored yet, and tells each one's frame and JPEG in the order asked. */
export async function makeStills(
  { master, frames, height }: StillsRequest,
  context: TaskContext,
): Promise<number> {
  let reader: MasterReader | null = null;
  try {
    for (const frame of frames) {
      throwIfStopped(context.signal);
      const name = `${master.fingerprint}-${height}-${frame}.jpg`;
      let still: Blob | null = await storedFile('stills', name);
      if (!still) {
        reader ??= await MasterReader.open(master);
        still = await drawStill(reader, frame, height);
        if (still) await writeSmall('stills', name, still);
      }
      if (still) context.report({ frame, still });
    }
    return frames.length;
  } finally {
    reader?.close();
  }
}

async function drawStill(reader: MasterReader, frame: number, height: number): Promise<Blob | null> {
  const sample = await reader.frame(frame);
  if (!sample) return null;
  try {
    const { picture } = reader.master;
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
