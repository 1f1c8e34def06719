import { setTimeout as wait } from 'node:timers/promises';

/** Between two tries, in milliseconds. */
const REST_MS = 1000;

/** Tells a database that cannot be used just now, since another process locks it or its disk is full. */
const isUnusable = (error: unknown): boolean =>
  /^SQLITE_(BUSY|LOCKED|FULL|IOERR)/.test(String((error as { code?: unknown } | null)?.code));

/**
 * Does something that writes to the database, and does it again after a rest for as long as that cannot be used.
 * @param act that may be done again after it was ended by the database at any of its steps.
 * @throws what else goes wrong.
 */
export async function whenWritable<T>(act: () => T | Promise<T>): Promise<T> {
  for (;;) {
    try {
      return await act();
    } catch (error) {
      if (!isUnusable(error)) throw error;
      console.error(error);
      await wait(REST_MS);
    }
  }
}
