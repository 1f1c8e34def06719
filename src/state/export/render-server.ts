import { z } from 'zod';
import {
  RENDER_ABILITY,
  renderAbilitySchema,
  renderedPath,
  renderPath,
  type RenderRequest,
  RENDERS,
  type RenderState,
  renderStateSchema,
} from '@core/job/render-service';
import {
  trialPath,
  trialPicturePath,
  type TrialRequest,
  TRIALS,
  trialStateSchema,
} from '@core/trial/trial-service';
import { TroubleError } from '@core/trouble/trouble';
import type { TrialResult } from '@core/trial/rate-trial';
import type { RateTried } from '@media/trial/rate-trial-task';
import { writeWhole } from '@media/store/storage';
import { randomIdSchema } from '../../core/figures/random-id';
import { RENDER_SERVER as SERVER, sendSources } from './render-sources';
import { askJson, askStream, tellServer } from '../server';

/** How often it is asked how far it is, in milliseconds. */
const ASK_EVERY = 700;

/** Tells whether the server can make files. */
export async function canRender(): Promise<boolean> {
  try {
    return (await askJson(SERVER, RENDER_ABILITY, renderAbilitySchema)).ffmpeg;
  } catch {
    return false;
  }
}

/** How far it is: bytes while they go up or come down, frames of all passes while it is made. */
interface RemoteProgress {
  stage: 'send' | 'export' | 'fetch';
  done: number;
  total: number;
}

/** A file to have made, and where it stands on the server already. */
export interface RemoteOrder {
  request: RenderRequest;
  /** ID on the server; null before it knows of it. */
  id: string | null;
}

interface Options {
  signal: AbortSignal;
  onProgress: (progress: RemoteProgress) => void;
  /** The server knows of it from here on. */
  onBegun: (id: string) => Promise<void>;
}

/**
 * Has a file made on the server and stores it under a name: masters that are not there go up first. What the server
 * makes already is only followed.
 * @throws TroubleError
 */
export async function makeOnServer(name: string, order: RemoteOrder, options: Options): Promise<void> {
  const { signal, onProgress, onBegun } = options;
  const { id: known, request } = order;
  const id =
    known !== null && (await fetchState(known, signal)) ? known : await beginRender(request, options);
  if (id !== known) await onBegun(id);
  const { bytes } = await waitForFile(id, options);
  onProgress({ stage: 'fetch', done: 0, total: bytes });
  let done = 0;
  const counted = new TransformStream<Uint8Array, Uint8Array>({
    transform(piece, to) {
      done += piece.byteLength;
      onProgress({ stage: 'fetch', done, total: bytes });
      to.enqueue(piece);
    },
    flush() {
      if (done !== bytes) throw new TroubleError('server-answer', { ...SERVER });
    },
  });
  const store = (stream: ReadableStream<Uint8Array>) =>
    writeWhole('exports', name, stream.pipeThrough(counted), bytes);
  await askStream(SERVER, renderedPath(id), store, signal);
  dropRemote(id);
}

/** Has the server forget a file. */
export const dropRemote = (id: string): void => tellServer(SERVER, renderPath(id), { method: 'DELETE' });

/** Where a file stands; null where the server does not know it any more. */
async function fetchState(id: string, signal: AbortSignal): Promise<RenderState | null> {
  try {
    return await askJson(SERVER, renderPath(id), renderStateSchema, { signal });
  } catch (error) {
    if (error instanceof TroubleError && error.trouble.code === 'server-refused') return null;
    throw error;
  }
}

async function beginRender(
  request: RenderRequest,
  options: Pick<Options, 'signal' | 'onProgress'>,
): Promise<string> {
  await sendSources(request, options);
  return (await askJson(SERVER, RENDERS, idSchema, { method: 'POST', body: request, signal: options.signal }))
    .id;
}

/** Answer of the server with the ID of something that was begun. */
const idSchema = z.object({ id: randomIdSchema });

/** Tries bit rates on the server, and fetches what it found. @throws TroubleError */
export async function tryRatesOnServer(
  request: TrialRequest,
  options: Pick<Options, 'signal'> & { onProgress: (progress: { done: number; total: number }) => void },
): Promise<RateTried> {
  const { signal, onProgress } = options;
  await sendSources(request, options);
  const { id } = await askJson(SERVER, TRIALS, idSchema, { method: 'POST', body: request, signal });
  try {
    for (;;) {
      const now = await askJson(SERVER, trialPath(id), trialStateSchema, { signal });
      if (now.state === 'failed') throw new TroubleError('render-failed', { fault: 'broken' });
      if (now.state === 'running') onProgress(now);
      if (now.state === 'done')
        return { result: now.result, pictures: await fetchPictures(id, now.result, signal) };
      await new Promise((resolve) => setTimeout(resolve, ASK_EVERY));
    }
  } finally {
    tellServer(SERVER, trialPath(id), { method: 'DELETE' });
  }
}

function fetchPictures(
  id: string,
  { points }: TrialResult,
  signal: AbortSignal,
): Promise<RateTried['pictures']> {
  const whole = (stream: ReadableStream<Uint8Array>) => new Response(stream).blob();
  const fetchPicture = (rate: number, kind: string) =>
    askStream(SERVER, trialPicturePath(id, String(rate), kind), whole, signal);
  return Promise.all(
    points.map(async (_, rate) => ({
      planned: await fetchPicture(rate, 'planned'),
      viewed: await fetchPicture(rate, 'viewed'),
    })),
  );
}

/** Resolves when it is made. @throws TroubleError where it was not. */
async function waitForFile(id: string, { signal, onProgress }: Options): Promise<{ bytes: number }> {
  for (;;) {
    const now = await askJson(SERVER, renderPath(id), renderStateSchema, { signal });
    if (now.state === 'done') return now;
    if (now.state === 'failed') throw new TroubleError('render-failed', { fault: now.fault });
    if (now.state === 'running') onProgress({ stage: 'export', done: now.done, total: now.total });
    await new Promise((resolve) => setTimeout(resolve, ASK_EVERY));
  }
}
