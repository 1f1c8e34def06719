import type { z } from 'zod';
import { type Trouble, TroubleError } from '@core/trouble/trouble';
import type { FailedAction, HttpRefusal } from '@core/trouble/troubles';

/** A server as words call it, and what it is asked for. */
export interface ServerName {
  who: string;
  errand: FailedAction;
}

/**
 * How long nothing may be heard of an answer, in seconds: a clip is decoded to its end before a post is answered. A long
 * file may come for as long as it does come.
 */
const PATIENCE = { short: 15, long: 900 };
/** Upload speed on a slow line, in bytes per second: the timeout of what is sent grows by it. */
const SLOW_LINE = 25_000;

/** How a request is made. */
export interface RequestOptions {
  method?: 'GET' | 'POST' | 'PUT' | 'DELETE';
  body?: unknown;
  signal?: AbortSignal;
  /** True when the server looks at a film before it answers. */
  long?: boolean;
}

/** Says what a status means, in our own words. */
function toRefusal(status: number): HttpRefusal {
  if (status === 404 || status === 409 || status === 410) return 'gone';
  if (status === 413) return 'too-large';
  if (status === 503) return 'busy';
  return status === 507 ? 'no-room' : 'fault';
}

/** @throws TroubleError `server-down`, `server-slow`, `server-refused`, or `cancelled`. */
async function ask<T>(
  server: ServerName,
  address: string,
  asking: RequestOptions,
  read: (response: Response, onPiece: () => void) => Promise<T>,
): Promise<T> {
  const { method = 'GET', body, signal, long } = asking;
  const sent = body === undefined ? '' : JSON.stringify(body);
  const seconds = (long ? PATIENCE.long : PATIENCE.short) + Math.ceil(sent.length / SLOW_LINE);
  const stop = new AbortController();
  let late = false;
  const end = () => stop.abort();
  let clock: ReturnType<typeof setTimeout> | undefined;
  const wait = () => {
    clearTimeout(clock);
    clock = setTimeout(() => {
      late = true;
      end();
    }, seconds * 1000);
  };
  wait();
  signal?.addEventListener('abort', end);
  try {
    if (signal?.aborted) throw new TroubleError('cancelled');
    const response = await fetch(address, {
      method,
      // An answer from elsewhere is none.
      redirect: 'error',
      signal: stop.signal,
      ...(sent !== '' ? { headers: { 'content-type': 'application/json' }, body: sent } : {}),
    });
    if (!response.ok)
      throw new TroubleError('server-refused', { ...server, why: toRefusal(response.status) });
    return await read(response, wait);
  } catch (error) {
    if (late) throw new TroubleError('server-slow', { ...server, seconds });
    throw TroubleError.of(serverTrouble(server, error, signal));
  } finally {
    clearTimeout(clock);
    signal?.removeEventListener('abort', end);
  }
}

/** Passes bytes on, and tells of each piece. */
const telling = (onPiece: () => void): TransformStream<Uint8Array, Uint8Array> =>
  new TransformStream({
    transform(piece, to) {
      onPiece();
      to.enqueue(piece);
    },
  });

async function readBlob(response: Response, onPiece: () => void): Promise<Blob> {
  const { body, headers } = response;
  if (!body) return response.blob();
  const pieces: BlobPart[] = [];
  const reader = body.pipeThrough(telling(onPiece)).getReader();
  for (let read = await reader.read(); !read.done; read = await reader.read())
    pieces.push(read.value as Uint8Array<ArrayBuffer>);
  return new Blob(pieces, { type: headers.get('content-type') ?? '' });
}

/** Turns an error of a request to a server into a trouble. */
export function serverTrouble(server: ServerName, error: unknown, signal?: AbortSignal): Trouble {
  if (error instanceof TroubleError) return error.trouble;
  return signal?.aborted ? { code: 'cancelled', values: {} } : { code: 'server-down', values: { ...server } };
}

/** Asks for something of a known shape. @throws TroubleError also `server-answer` for any other. */
export async function askJson<T>(
  server: ServerName,
  address: string,
  schema: z.ZodType<T>,
  asking: RequestOptions = {},
): Promise<T> {
  const answer = await ask(server, address, asking, (response): Promise<unknown> =>
    response.json().catch((error: unknown) => {
      if (error instanceof SyntaxError) return undefined;
      throw error;
    }),
  );
  const read = schema.safeParse(answer);
  if (!read.success) throw new TroubleError('server-answer', { ...server });
  return read.data;
}

/** Asks for bytes. @param size that they must have, where it is known. @throws TroubleError */
export async function askBytes(
  server: ServerName,
  address: string,
  { size, ...asking }: RequestOptions & { size?: number } = {},
): Promise<Blob> {
  const bytes = await ask(server, address, { ...asking, long: true }, readBlob);
  if (size !== undefined && bytes.size !== size) throw new TroubleError('server-answer', { ...server });
  return bytes;
}

/**
 * Asks for bytes and hands them on as they come.
 * @param take resolves when they are taken. @throws TroubleError, and what taking throws.
 */
export async function askStream<T>(
  server: ServerName,
  address: string,
  take: (stream: ReadableStream<Uint8Array>) => Promise<T>,
  signal: AbortSignal,
): Promise<T> {
  return ask(server, address, { signal, long: true }, async ({ body }, onPiece) => {
    if (!body) throw new TroubleError('server-answer', { ...server });
    return take(body.pipeThrough(telling(onPiece)));
  });
}

/** Asks for something to be done that has no answer but that it was. @throws TroubleError */
export const askDone = (server: ServerName, address: string, asking: RequestOptions): Promise<void> =>
  ask(server, address, asking, () => Promise.resolve());

/** Tells a server something whose answer does not matter. */
export function tellServer(server: ServerName, address: string, asking: RequestOptions): void {
  askDone(server, address, asking).catch(() => undefined);
}
