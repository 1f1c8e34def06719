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
  if (await isFree()) return;
  onHeld?.();
  // A request that waits in the lock's line would hold up whoever wants to play besides.
  do await sleep(LOOK_EVERY_MS);
  while (!signal?.aborted && !(await isFree()));
}

/** How often it is looked whether something still plays, in milliseconds. */
const LOOK_EVERY_MS = 200;
const sleep = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const isFree = (): Promise<boolean> =>
  navigator.locks.request(NAME, { mode: 'exclusive', ifAvailable: true }, (lock) => lock !== null);
