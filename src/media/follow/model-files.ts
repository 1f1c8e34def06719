import { TroubleError } from '@core/trouble/trouble';
import { type StoredModel, weightBytes } from './reshape-model';

/** Where the weights lie on our own server, and in the browser once they were fetched. Other files need another name. */
const FOLDER = '/models/';
const CACHE = 'gusset/models/1';
const SERVER = { who: 'The server', errand: 'follow' } as const;

/** A model's two files. */
export interface ModelFiles {
  stored: StoredModel;
  weights: ArrayBuffer;
}

const namesOf = (name: string): [string, string] => [`${FOLDER}${name}.json`, `${FOLDER}${name}.bin`];

/**
 * The files of a model: those that the browser kept, so that they are there without a server too, else the server's,
 * which are kept once they are known to be whole.
 *
 * @throws TroubleError `server-down`, `server-answer`.
 */
export async function modelFiles(name: string): Promise<ModelFiles> {
  const cache = await caches.open(CACHE);
  const kept = await Promise.all(namesOf(name).map((url) => cache.match(url)));
  const known = await read(kept[0], kept[1]);
  if (known) return known;
  const [json, weights] = await Promise.all(namesOf(name).map(fetched));
  const copies = [json?.clone(), weights?.clone()];
  const files = await read(json, weights);
  // A page in the place of a file, or half of one.
  if (!files) throw new TroubleError('server-answer', SERVER);
  await Promise.all(
    namesOf(name).map((url, i) => {
      const copy = copies[i];
      return copy && cache.put(url, copy);
    }),
  ).catch((error: unknown) => console.error('a model could not be kept', error));
  return files;
}

async function fetched(url: string): Promise<Response> {
  try {
    return await fetch(url);
  } catch {
    throw new TroubleError('server-down', SERVER);
  }
}

/** The files as they were answered; null where they are not a whole model. */
async function read(json?: Response, weights?: Response): Promise<ModelFiles | null> {
  if (!json?.ok || !weights?.ok) return null;
  try {
    const stored = (await json.json()) as StoredModel;
    const bytes = await weights.arrayBuffer();
    return bytes.byteLength === bytesOf(stored) ? { stored, weights: bytes } : null;
  } catch {
    return null;
  }
}

const bytesOf = ({ weightsManifest }: StoredModel): number =>
  weightsManifest.flatMap(({ weights }) => weights).reduce((sum, weight) => sum + weightBytes(weight), 0);
