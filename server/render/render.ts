import { mkdir, rename, rm, stat } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { subtractSound } from '../../src/core/render/encode-settings';
import { freeBytes } from '../uploads/room';
import { hasTwoPasses } from './encoder-args';
import { join } from './join';
import { type RenderOrder, listSegments } from './order';
import { soundBytes } from './packet-bytes';
import type { SegmentTask } from './segment';
import { ENCODER_THREADS, SegmentWork } from './segment-work';
import { makeSound } from './sound';
import { Threads } from './threads';

/** How far a file is, in frames: one that is only looked at counts for a part. */
interface RenderProgress {
  done: number;
  total: number;
}

/** Whatever makes segments: threads of this machine, or workers elsewhere. */
export interface SegmentMaker {
  /** @returns bytes of the segment's pictures. */
  make(task: SegmentTask, onFrame: (done: number) => void, signal: AbortSignal): Promise<number>;
}

/** How a file is made. */
export interface RenderOptions {
  /** Holds segments while they are made; what is whole in it is taken up. */
  folder: string;
  /** The finished file. */
  to: string;
  /** Makes its segments elsewhere, or has threads of this machine make them. */
  maker?: (own: SegmentMaker) => SegmentMaker;
  onProgress?: (progress: RenderProgress) => void;
  signal: AbortSignal;
}

/**
 * Makes a file: its sound and its segments, each looked through first where two passes were asked for, and joined.
 * @throws TroubleError, and Error with what an encoder said.
 */
export async function renderFile(order: RenderOrder, options: RenderOptions): Promise<{ bytes: number }> {
  const { folder, to, signal, onProgress } = options;
  await mkdir(folder, { recursive: true });
  const { plan, making } = order;
  const threads = new Threads(order, Math.max(1, Math.ceil(availableParallelism() / ENCODER_THREADS)));
  const maker = options.maker?.(threads) ?? threads;
  const segments = making.picture ? listSegments(order) : [];
  const twoPasses = making.picture !== null && hasTwoPasses(making.picture);
  const keepsFrames = options.maker === undefined && twoPasses && (await hasRoomForFrames(folder, order));
  const work = new SegmentWork(order, maker, segments, { folder, signal, keepsFrames, onProgress });
  const sound = making.sound && soundFile(folder, order, signal);
  // Its failure is told when it is waited for.
  sound?.catch(() => undefined);
  // A size is landed on with what the sound leaves.
  const spare = async () => {
    const heard = making.picture?.kind === 'size' ? await sound : null;
    return heard ? subtractSound(plan, making, await soundBytes(heard)) : 0;
  };
  try {
    if (making.picture)
      await (twoPasses ? work.inTwoPasses(making.picture, spare) : work.inOnePass(making.picture));
    const heard = await sound;
    const part = `${to}.part`;
    await join(plan, making.format, work.made(), heard ?? null, part);
    await rename(part, to);
    await rm(folder, { recursive: true, force: true });
    return { bytes: (await stat(to)).size };
  } finally {
    threads.close();
    await sound?.catch(() => undefined);
  }
}

/** Frames that are kept between two passes take at most this, in bytes, and this share of what is free. */
const MAX_FRAMES = 16e9;
const SHARE_OF_FREE = 0.4;

/** Tells whether all frames of a file fit on the disk between its passes: then they are drawn once. */
async function hasRoomForFrames(folder: string, { plan }: RenderOrder): Promise<boolean> {
  const bytes = plan.frames * plan.width * plan.height * 1.5;
  return bytes <= MAX_FRAMES && bytes <= SHARE_OF_FREE * (await freeBytes(folder));
}

/** Of a file; null where there is none. */
export const getFileSize = (file: string): Promise<number | null> =>
  stat(file).then(
    ({ size }) => size,
    () => null,
  );

async function soundFile(folder: string, order: RenderOrder, signal: AbortSignal): Promise<string> {
  const file = path.join(folder, 'sound.mka');
  if ((await getFileSize(file)) !== null) return file;
  const { sound } = order.making;
  if (!sound) throw new RangeError('there is no sound');
  await makeSound(order, sound, `${file}.part`, signal);
  await rename(`${file}.part`, file);
  return file;
}
