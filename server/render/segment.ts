import { rm, stat } from 'node:fs/promises';
import { drawSegment } from './draw';
import { EncodeRun } from './encode';
import { encoderArgs, type EncoderPass, rawInput, type SegmentBits } from './encoder-args';
import { FrameFile } from './frame-file';
import type { RenderOrder, Segment } from './order';

/** A segment to encode: where to, with what bits, and in which pass. */
export interface SegmentTask extends SegmentBits {
  segment: Segment;
  /** Where its file goes; a first pass leaves its log beside it. */
  file: string;
  pass: 1 | 2 | null;
  /** True when a first pass keeps its frames for the second. */
  keepsFrames: boolean;
  threads: number;
}

/**
 * Files that the first pass of a segment leaves for the second: its log, and its frames where there is room
 * for them.
 */
const passLog = (file: string): string => `${file}.pass`;
/** The files that ffmpeg makes of a log. */
export const passFiles = (file: string) => ({
  log: `${passLog(file)}-0.log`,
  tree: `${passLog(file)}-0.log.mbtree`,
});
const countFrames = (file: string): string => `${file}.frames`;

/**
 * Draws a segment and encodes it.
 * @returns bytes of its pictures; of a first pass what they would be.
 */
export async function makeSegment(
  order: RenderOrder,
  task: SegmentTask,
  onFrame: (done: number) => void,
  signal: AbortSignal,
): Promise<{ bytes: number }> {
  const { plan, making } = order;
  const { file, pass, threads } = task;
  if (!making.picture) throw new RangeError('sound alone has no segments');
  const drawn = task.keepsFrames && pass === 2 ? countFrames(file) : null;
  const passes: EncoderPass = pass && { number: pass, log: passLog(file) };
  // An encoder that outlived a server that was killed may still be writing there.
  await rm(file, { force: true });
  const encoder = new EncodeRun(
    [
      ...rawInput(plan, drawn ?? 'pipe:0'),
      ...encoderArgs(making.picture, task, passes, threads),
      ...['-f', 'matroska', file],
    ],
    onFrame,
  );
  const stop = () => encoder.stop();
  signal.addEventListener('abort', stop);
  try {
    if (drawn === null) await drawInto(encoder, order, task, signal);
    await encoder.finish();
    return { bytes: (await stat(file)).size };
  } catch (error) {
    encoder.stop();
    await rm(file, { force: true });
    throw error;
  } finally {
    signal.removeEventListener('abort', stop);
  }
}

async function drawInto(
  encoder: EncodeRun,
  order: RenderOrder,
  { segment, file, pass, keepsFrames }: SegmentTask,
  signal: AbortSignal,
): Promise<void> {
  const kept = keepsFrames && pass === 1 ? await FrameFile.create(countFrames(file)) : null;
  try {
    await drawSegment(
      order,
      segment,
      async (frame, number) => {
        await Promise.all([encoder.write(frame), kept?.write(frame, number - segment.start)]);
      },
      signal,
    );
  } finally {
    await kept?.close();
  }
}
