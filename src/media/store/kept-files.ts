import { TroubleError } from '@core/trouble/trouble';
import type { FailedAction } from '@core/trouble/troubles';

/** Where files of our own server lie in the browser once they were fetched. Other files need another name. */
const CACHE = 'gusset/models/1';
/** A server that does not begin to answer for so long is taken for one that is not there, in milliseconds. */
const PATIENCE = 60_000;
const BRIEF = 5_000;

/**
 * Reads files of our server: those that the browser kept, so that they are there without a server too, else
 * the server's, which are kept once they are known to be whole.
 *
 * @param urls of the files on our own server. @param errand what they are needed for.
 * @param read makes something of the files' bytes; null, or a failure, where they are not whole.
 * @throws TroubleError `server-down`, `server-answer`.
 */
export async function keptFiles<Made>(
  urls: readonly string[],
  errand: FailedAction,
  read: (files: ArrayBuffer[]) => Promise<Made | null>,
): Promise<Made> {
  const cache = await caches.open(CACHE);
  const known = await readWhole(await Promise.all(urls.map((url) => cache.match(url))), read);
  if (known !== null) return known;
  return readOfServer(urls, PATIENCE, errand, read);
}

/**
 * Reads a file of our server that changes under its name: the server's where that answers soon, else the one
 * that the browser kept.
 * @throws TroubleError `server-down`, `server-answer`, where none was kept.
 * @throws TroubleError `server-down`, `server-answer`, where none was kept.
 */
export async function freshFile<Made>(
  url: string,
  errand: FailedAction,
  read: (file: ArrayBuffer) => Promise<Made | null>,
): Promise<Made> {
  const readOne = ([bytes]: ArrayBuffer[]) => (bytes ? read(bytes) : Promise.resolve(null));
  try {
    return await readOfServer([url], BRIEF, errand, readOne);
  } catch (error) {
    const cache = await caches.open(CACHE);
    const known = await readWhole([await cache.match(url)], readOne);
    if (known === null) throw error;
    return known;
  }
}

/** Fetches files, and keeps them once they are known to be whole. */
async function readOfServer<Made>(
  urls: readonly string[],
  patience: number,
  errand: FailedAction,
  read: (files: ArrayBuffer[]) => Promise<Made | null>,
): Promise<Made> {
  const server = { who: 'The server', errand };
  const answers = await Promise.all(
    urls.map((url) =>
      fetchAnswer(url, patience).catch(() => {
        throw new TroubleError('server-down', server);
      }),
    ),
  );
  const copies = answers.map((answer) => answer.clone());
  const made = await readWhole(answers, read);
  // A page in the place of a file, or half of one.
  if (made === null) throw new TroubleError('server-answer', server);
  const cache = await caches.open(CACHE);
  await Promise.all(urls.map((url, i) => cache.put(url, copies[i] as Response))).catch((error: unknown) =>
    console.error('a file could not be kept', error),
  );
  return made;
}

/** The beginning of an answer; how long the rest takes is the line's affair. */
async function fetchAnswer(url: string, patience: number): Promise<Response> {
  const ended = new AbortController();
  const timer = setTimeout(() => ended.abort(), patience);
  try {
    return await fetch(url, { signal: ended.signal });
  } finally {
    clearTimeout(timer);
  }
}

async function readWhole<Made>(
  answers: readonly (Response | undefined)[],
  read: (files: ArrayBuffer[]) => Promise<Made | null>,
): Promise<Made | null> {
  const whole = answers.flatMap((answer) => (answer?.ok ? [answer] : []));
  if (whole.length < answers.length) return null;
  try {
    return await read(await Promise.all(whole.map((answer) => answer.arrayBuffer())));
  } catch {
    return null;
  }
}
