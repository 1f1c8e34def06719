import { stat, statfs } from 'node:fs/promises';
import type { Database } from '../store/database';
import { sum } from '../../src/core/figures/sum';
import { openUploadFiles, promisedBytes } from '../store/upload-records';

/** All uploads together may be promised this much, in bytes. */
const QUOTA = 128e9;
/** Space that the disk keeps free in any case, in bytes. */
const MARGIN = 128e6;

/** Bytes that can still be written to a folder's disk, leaving its margin. */
export async function freeBytes(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder);
  return Math.max(0, bavail * bsize - MARGIN);
}

/** Bytes of uploads on the disk that are not whole yet. */
async function arrivedBytes(database: Database): Promise<number> {
  const sizes = openUploadFiles(database).map((file) =>
    stat(file).then(
      ({ size }) => size,
      () => 0,
    ),
  );
  return sum(await Promise.all(sizes));
}

/**
 * Promises so many bytes more, within the quota and what the disk has free.
 * @param write writes the promise down, before anybody else is promised anything. @returns whether there was room.
 */
export async function promiseRoom(
  database: Database,
  folder: string,
  bytes: number,
  write: () => void,
): Promise<boolean> {
  const [free, arrived] = await Promise.all([freeBytes(folder), arrivedBytes(database)]);
  const promised = promisedBytes(database);
  // What came already takes its room on the disk.
  if (promised.all + bytes > QUOTA || promised.open - arrived + bytes > free) return false;
  write();
  return true;
}
