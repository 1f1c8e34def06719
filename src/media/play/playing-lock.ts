/** Held while a picture plays: work in the background waits, so that playing keeps its pace. */
const NAME = 'gusset-playing';

/** Runs something while background work waits. */
export async function whilePlaying<T>(run: () => Promise<T>): Promise<T> {
  return navigator.locks.request(NAME, { mode: 'shared' }, run);
}

/** Waits while anything plays, in this tab or another. */
export async function waitWhilePlaying(): Promise<void> {
  await navigator.locks.request(NAME, { mode: 'exclusive' }, () => undefined);
}
