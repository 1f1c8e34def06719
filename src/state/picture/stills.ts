import { useEffect, useState } from 'react';
import type { Source } from '@core/master/source';
import { stillName } from '@core/master/still-name';
import { storedFile } from '@media/store/storage';
import { makeStills } from '@media/worker/tasks';

/** Addresses of stills that were made in this visit, by master, height and frame. */
const addresses = new Map<string, string>();
/** Stills that are being made. */
interface RunningStills {
  fingerprint: string;
  stop: AbortController;
  ended: Promise<unknown>;
}
const underWay = new Set<RunningStills>();

const toKey = (source: Source, height: number, frame: number): string => stillName(source, height, frame);

/**
 * Small pictures of frames of a master, each there as soon as it is made.
 * @param frames the same array while the same frames are wanted.
 * @returns the picture's address by frame.
 */
export function useStills(source: Source, frames: readonly number[], height: number): Record<number, string> {
  const [made, setMade] = useState(0);
  // The source is made anew at every change of the job; only how it looks counts.
  const look = toKey(source, height, 0);
  useEffect(() => {
    const missing = frames.filter((frame) => !addresses.has(toKey(source, height, frame)));
    if (missing.length === 0) return;
    const stop = new AbortController();
    const putStill = (frame: number, still: Blob) => {
      const key = toKey(source, height, frame);
      const before = addresses.get(key);
      if (before !== undefined) URL.revokeObjectURL(before);
      addresses.set(key, URL.createObjectURL(still));
      setMade((count) => count + 1);
    };
    void makeMissing(source, missing, height, putStill, stop.signal).catch(() => {
      // The strip stays empty; the player tells the same trouble in words.
    });
    return () => stop.abort();
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [look, frames, height]);
  const found: Record<number, string> = {};
  for (const frame of frames) {
    const address = addresses.get(toKey(source, height, frame));
    if (address && made >= 0) found[frame] = address;
  }
  return found;
}

/** Renders a small picture of a frame; null where the master cannot be read. */
export async function renderStill(source: Source, frame: number, height: number): Promise<Blob | null> {
  let found: Blob | null = null;
  const take = (_frame: number, still: Blob) => (found = still);
  await makeMissing(source, [frame], height, take, new AbortController().signal).catch(() => undefined);
  return found;
}

/** Takes stored stills, and starts a worker only for those that were never made. */
async function makeMissing(
  source: Source,
  frames: readonly number[],
  height: number,
  put: (frame: number, still: Blob) => void,
  signal: AbortSignal,
): Promise<void> {
  const unmade: number[] = [];
  for (const frame of frames) {
    const still = await storedFile('stills', stillName(source, height, frame));
    if (signal.aborted) return;
    if (still) put(frame, still);
    else unmade.push(frame);
  }
  if (unmade.length === 0) return;
  const stop = new AbortController();
  const making: RunningStills = {
    fingerprint: source.fingerprint,
    stop,
    ended: makeStills(
      { source, frames: unmade, height },
      { onProgress: ({ frame, still }) => put(frame, still), signal: AbortSignal.any([signal, stop.signal]) },
    ),
  };
  underWay.add(making);
  try {
    await making.ended;
  } finally {
    underWay.delete(making);
  }
}

/** Stops making stills of a master that is deleted. Resolves when none is written any more. */
export async function forgetStills(fingerprint: string): Promise<void> {
  const of = [...underWay].filter((making) => making.fingerprint === fingerprint);
  for (const { stop } of of) stop.abort();
  await Promise.allSettled(of.map(({ ended }) => ended));
}
