import { TroubleError } from '@core/trouble/trouble';

/** Folders of the browser's private file system. */
export type Folder = 'masters' | 'passes' | 'stills' | 'exports' | 'archives' | 'fonts' | 'trials';

const isMissing = (error: unknown): boolean =>
  error instanceof DOMException && error.name === 'NotFoundError';
/** Tells whether an error says that the browser grants no more room. */
export const isFull = (error: unknown): boolean =>
  error instanceof DOMException && error.name === 'QuotaExceededError';

/** A folder of the private file system. */
export async function openFolder(folder: Folder): Promise<FileSystemDirectoryHandle> {
  const root = await navigator.storage.getDirectory();
  return root.getDirectoryHandle(folder, { create: true });
}

/** A stored file, or null when there is none (it was never stored, or the browser evicted it). */
export async function storedFile(folder: Folder, name: string): Promise<File | null> {
  try {
    const handle = await (await openFolder(folder)).getFileHandle(name);
    return await handle.getFile();
  } catch (error) {
    if (isMissing(error)) return null;
    throw error;
  }
}

/** Deletes a stored file; nothing happens when there is none. */
export async function deleteStored(folder: Folder, name: string): Promise<void> {
  try {
    await (await openFolder(folder)).removeEntry(name);
  } catch (error) {
    if (!isMissing(error)) throw error;
  }
}

/** Names of the stored files of a folder. */
export async function storedNames(folder: Folder): Promise<string[]> {
  const names: string[] = [];
  for await (const name of (await openFolder(folder)).keys()) names.push(name);
  return names;
}

/** Bytes of the stored files of a folder, by name. */
export async function storedSizes(folder: Folder): Promise<Map<string, number>> {
  const sizes = new Map<string, number>();
  for (const name of await storedNames(folder)) {
    const file = await storedFile(folder, name);
    if (file) sizes.set(name, file.size);
  }
  return sizes;
}

/** Measures the storage that this browser grants and holds, in bytes. */
export async function storageRoom(): Promise<{ used: number; free: number }> {
  const { usage = 0, quota = 0 } = await navigator.storage.estimate();
  return { used: usage, free: Math.max(0, quota - usage) };
}

/** @throws TroubleError `storage-full` when fewer than `need` bytes are free. */
export async function requireRoom(need: number): Promise<void> {
  const { free } = await storageRoom();
  if (need > free) throw new TroubleError('storage-full', { need, free });
}

/** A file being written at any position, in a worker. It has its name only once it is finished. */
export interface StoredWriter {
  write(data: Uint8Array<ArrayBuffer>, position: number): void;
  /** Keeps the file under its name, or under another that was only found out by writing it. */
  finish(finalName?: string): Promise<void>;
  /** Leaves nothing behind. */
  discard(): Promise<void>;
}

/** Ending of a file that is not finished. */
const PART = '.part';

/** Opens a file for streaming into; only workers may (sync access handles). */
export async function openWriter(folder: Folder, name: string): Promise<StoredWriter> {
  const directory = await openFolder(folder);
  const handle = await directory.getFileHandle(name + PART, { create: true });
  const access = await handle.createSyncAccessHandle();
  access.truncate(0);
  return {
    write(data, position) {
      // Past the quota some browsers throw and some write less than they were given.
      const full = new TroubleError('storage-full', { need: position + data.byteLength, free: null });
      try {
        if (access.write(data, { at: position }) !== data.byteLength) throw full;
      } catch (error) {
        throw isFull(error) ? full : error;
      }
    },
    async finish(finalName = name) {
      access.flush();
      access.close();
      await handle.move(finalName);
    },
    async discard() {
      access.close();
      await deleteStored(folder, name + PART);
    },
  };
}

const FOLDERS = ['masters', 'passes', 'stills', 'exports', 'archives', 'fonts', 'trials'] as const;
/** An archive that was made so long ago, in milliseconds, was saved, or will not be. */
const ARCHIVE_LIFE_MS = 24 * 3600_000;

/** Deletes what unfinished writes of an earlier visit left, and archives that were saved long since. */
export async function sweepParts(): Promise<void> {
  for (const folder of FOLDERS) {
    for (const name of await storedNames(folder)) {
      // One that is being written right now is locked, and stays.
      if (name.endsWith(PART) || (folder === 'archives' && (await isOld(folder, name))))
        await deleteStored(folder, name).catch(() => undefined);
    }
  }
}

/** Another tab may have made an archive just now, and be about to save it. */
async function isOld(folder: Folder, name: string): Promise<boolean> {
  const file = await storedFile(folder, name).catch(() => null);
  return file !== null && Date.now() - file.lastModified > ARCHIVE_LIFE_MS;
}

/** Stores a small blob whole, or not at all. @throws TroubleError `storage-full` */
export const writeSmall = (folder: Folder, name: string, blob: Blob): Promise<void> =>
  writeWhole(folder, name, blob.stream(), blob.size);

/**
 * Stores a stream whole, or not at all.
 * @param size that it has, in bytes. @throws TroubleError `storage-full`, and what the stream throws.
 */
export async function writeWhole(
  folder: Folder,
  name: string,
  stream: ReadableStream<Uint8Array>,
  size: number,
): Promise<void> {
  const part = `${name}.${crypto.randomUUID()}${PART}`;
  const handle = await (await openFolder(folder)).getFileHandle(part, { create: true });
  try {
    await stream.pipeTo(await handle.createWritable());
    // The name comes after the bytes: a page that is ended at any moment leaves no file that only looks whole.
    await handle.move(name);
  } catch (error) {
    await deleteStored(folder, part).catch(() => undefined);
    throw isFull(error) ? new TroubleError('storage-full', { need: size, free: null }) : error;
  }
}

/** Deletes every stored file of a folder whose name begins so. */
export async function deleteAllStored(folder: Folder, beginning: string): Promise<void> {
  for (const name of await storedNames(folder)) {
    if (name.startsWith(beginning)) await deleteStored(folder, name);
  }
}
