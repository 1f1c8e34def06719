import { TroubleError } from '@core/trouble/trouble';
import type { Errand } from '@core/trouble/troubles';

/** Where files of our own server lie in the browser once they were fetched. Other files need another name. */
const CACHE = 'gusset/models/1';

/**
 * What is read out of files of our server: of those that the browser kept, so that they are there without a server too,
 * else of the server's, which are kept once they are known to be whole.
 *
 * @param urls of the files on our own server. @param errand what they are needed for.
 * @param read makes something of the files' bytes; null, or a failure, where they are not whole.
 * @throws TroubleError `server-down`, `server-answer`.
 */
export async function keptFiles<Made>(
  urls: readonly string[],
  errand: Errand,
  read: (files: ArrayBuffer[]) => Promise<Made | null>,
): Promise<Made> {
  const server = { who: 'The server', errand };
  const cache = await caches.open(CACHE);
  const known = await readWhole(await Promise.all(urls.map((url) => cache.match(url))), read);
  if (known !== null) return known;
  const answers = await Promise.all(
    urls.map((url) =>
      fetch(url).catch(() => {
        throw new TroubleError('server-down', server);
      }),
    ),
  );
  const copies = answers.map((answer) => answer.clone());
  const made = await readWhole(answers, read);
  // A page in the place of a file, or half of one.
  if (made === null) throw new TroubleError('server-answer', server);
  await Promise.all(urls.map((url, i) => cache.put(url, copies[i] as Response))).catch((error: unknown) =>
    console.error('a file could not be kept', error),
  );
  return made;
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
