import path from 'node:path';
import Sqlite from 'libsql';

/** Another server works on the same folder. */
export class FolderTakenError extends Error {}

/** A folder that this process alone works on. */
export interface FolderLock {
  release(): void;
}

/**
 * Locks a folder for this process. The lock is the operating system's own, on a file of SQLite's: it ends with the
 * process, however that ends.
 * @throws FolderTakenError
 */
export function lockFolder(folder: string): FolderLock {
  const lock = new Sqlite(path.join(folder, 'gusset.lock'));
  try {
    lock.exec('pragma busy_timeout = 0; begin exclusive;');
  } catch (error) {
    lock.close();
    if (isDatabaseBusy(error)) throw new FolderTakenError(`another server is at work in ${folder}`);
    throw error;
  }
  return { release: () => lock.close() };
}

/** Tells whether an error says that somebody else holds the database at this moment. */
export const isDatabaseBusy = (error: unknown): boolean =>
  error instanceof Error &&
  /database is locked|SQLITE_BUSY/.test(`${error.message} ${(error as { code?: string }).code}`);
