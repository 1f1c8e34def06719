import { useEffect, useState } from 'react';
import type { Master } from '@core/job/master';
import { makeStillsOf } from '@media/tasks';

/** Addresses of stills that were made in this visit, by master, height and frame. */
const addresses = new Map<string, string>();
const keyOf = (master: Master, height: number, frame: number): string =>
  `${master.fingerprint}-${height}-${frame}`;

/**
 * Small pictures of frames of a master, each there as soon as it is made.
 * @param frames the same array while the same frames are wanted.
 * @returns the picture's address by frame.
 */
export function useStills(master: Master, frames: readonly number[], height: number): Record<number, string> {
  const [made, setMade] = useState(0);
  useEffect(() => {
    const missing = frames.filter((frame) => !addresses.has(keyOf(master, height, frame)));
    if (missing.length === 0) return;
    const stop = new AbortController();
    makeStillsOf(
      { master, frames: missing, height },
      ({ frame, still }) => {
        const before = addresses.get(keyOf(master, height, frame));
        if (before !== undefined) URL.revokeObjectURL(before);
        addresses.set(keyOf(master, height, frame), URL.createObjectURL(still));
        setMade((count) => count + 1);
      },
      stop.signal,
    ).catch(() => {
      // The strip stays empty; the player tells the same trouble in words.
    });
    return () => stop.abort();
  }, [master, frames, height]);
  const found: Record<number, string> = {};
  for (const frame of frames) {
    const address = addresses.get(keyOf(master, height, frame));
    if (address && made >= 0) found[frame] = address;
  }
  return found;
}
