/** Frames from one key frame up to the next: they are encoded, kept and made again by themselves. */
export interface Group {
  /** First output frame. */
  start: number;
  frames: number;
}

/**
 * A clip in groups.
 * @param length frames of a group at most, 1 or more.
 */
export function splitIntoGroups(frames: number, length: number): Group[] {
  return Array.from({ length: Math.ceil(frames / length) }, (_, i) => {
    const start = i * length;
    return { start, frames: Math.min(length, frames - start) };
  });
}
