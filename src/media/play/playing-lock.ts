/** Held while a picture plays: work in the background waits, so that playing keeps its pace. */
const NAME = 'gusset-playing';

/** Runs something while background work waits. */
export async function whilePlaying<T>(run: () => Promise<T>): Promise<T> {
  return navigator.locks.request(NAME, { mode: 'shared' }, run);
}

/**
 * Waits while anything plays, in this tab or another, or until it is told to stop.
 * @param onHeld is told when there is something to wait for.
 */
export async function waitWhilePlaying(signal?: AbortSignal, onHeld?: () => void): Promise<void> {
  const free = { mode: 'exclusive' as const, ifAvailable: true };
  if (await navigator.locks.request(NAME, free, (lock) => lock !== null)) return;
  onHeld?.();
  const options = { mode: 'exclusive' as const, ...(signal && { signal }) };
  await navigator.locks
    .request(NAME, options, () => undefined)
    .catch((error: unknown) => {
      if (!signal?.aborted) throw error;
    });
}
