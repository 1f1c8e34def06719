import type { Format } from './format';

/** Overhead of a container, and of each frame or packet of sound in it, in bytes. */
interface Overhead {
  file: number;
  each: number;
}

/** An index that stands before the data is given its room before it is known, and keeps it. */
const INDEXED: Overhead = { file: 5100, each: 34.7 };

/** Measured of files that are made here; `server/render/container-bytes.test.ts` holds them to it. */
const TAKEN: Record<Format['container'], Overhead> = {
  ...{ mp4: INDEXED, mov: INDEXED },
  webm: { file: 600, each: 9.4 },
};

/** Bytes that a container takes besides pictures and sound. @param pieces frames and packets of sound in it. */
export function containerBytes(container: Format['container'], pieces: number): number {
  const { file, each } = TAKEN[container];
  return Math.round(file + each * pieces);
}
