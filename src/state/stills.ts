import { useEffect, useState } from 'react';
import type { Source } from '@core/job/source';
import { makeStillsOf } from '@media/tasks';

/** Addresses of stills that were made in this visit, by master, height and frame. */
const addresses = new Map<string, string>();
const keyOf = (source: Source, height: number, frame: number): string =>
  [source.fingerprint, source.rotation, source.flip, source.picture.width, height, frame].join('-');

/**
 * Small pictures of frames of a master, each there as soon as it is made.
 * @param frames the same array while the same frames are wanted.
 * @returns the picture's address by frame.
 */
export function useStills(source: Source, frames: readonly number[], height: number): Record<number, string> {
  const [made, setMade] = useState(0);
  // The source is made anew at every change of the job; only how it looks counts.
  const look = keyOf(source, height, 0);
  useEffect(() => {
    const missing = frames.filter((frame) => !addresses.has(keyOf(source, height, frame)));
    if (missing.length === 0) return;
    const stop = new AbortController();
    makeStillsOf(
      { source, frames: missing, height },
      ({ frame, still }) => {
        const before = addresses.get(keyOf(source, height, frame));
        if (before !== undefined) URL.revokeObjectURL(before);
        addresses.set(keyOf(source, height, frame), URL.createObjectURL(still));
        setMade((count) => count + 1);
      },
      stop.signal,
    ).catch(() => {
      // The strip stays empty; the player tells the same trouble in words.
    });
    return () => stop.abort();
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [look, frames, height]);
  const found: Record<number, string> = {};
  for (const frame of frames) {
    const address = addresses.get(keyOf(source, height, frame));
    if (address && made >= 0) found[frame] = address;
  }
  return found;
}
