import type { z } from 'zod';
import { type Trouble, TroubleError } from '@core/trouble/trouble';
import type { Errand, Refusal } from '@core/trouble/troubles';

/** A server as words call it, and what it is asked for. */
export interface ServerName {
  who: string;
  errand: Errand;
}

/** How long an answer may take, in seconds: a clip is decoded to its end before a post is answered. */
const PATIENCE = { short: 15, long: 900 };

/** How a request is made. */
export interface Asking {
  method?: 'GET' | 'POST' | 'PUT' | 'DELETE';
  body?: unknown;
  signal?: AbortSignal;
  /** Whether the server looks at a film before it answers. */
  long?: boolean;
}

/** What a status says in our own words. */
function refusalOf(status: number): Refusal {
  if (status === 404 || status === 409 || status === 410) return 'gone';
  if (status === 413) return 'too-large';
  if (status === 503) return 'busy';
  return status === 507 ? 'no-room' : 'fault';
}

/** @throws TroubleError `server-down`, `server-slow`, `server-refused`, or `cancelled`. */
async function ask<T>(
  server: ServerName,
  address: string,
  asking: Asking,
  read: (response: Response) => Promise<T>,
): Promise<T> {
  const { method = 'GET', body, signal, long } = asking;
  const seconds = long ? PATIENCE.long : PATIENCE.short;
  const stop = new AbortController();
  let late = false;
  const end = () => stop.abort();
  const clock = setTimeout(() => {
    late = true;
    end();
  }, seconds * 1000);
  signal?.addEventListener('abort', end);
  try {
    if (signal?.aborted) throw new TroubleError('cancelled');
    const response = await fetch(address, {
      method,
      // An answer from elsewhere is none.
      redirect: 'error',
      signal: stop.signal,
      ...(body === undefined
        ? {}
        : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
    if (!response.ok)
      throw new TroubleError('server-refused', { ...server, why: refusalOf(response.status) });
    // The body comes within the same time, and stops with the same signal.
    return await read(response);
  } catch (error) {
    if (late) throw new TroubleError('server-slow', { ...server, seconds });
    throw TroubleError.of(serverTrouble(server, error, signal));
  } finally {
    clearTimeout(clock);
    signal?.removeEventListener('abort', end);
  }
}

/** What an error while a server is asked is to a person. */
export function serverTrouble(server: ServerName, error: unknown, signal?: AbortSignal): Trouble {
  if (error instanceof TroubleError) return error.trouble;
  return signal?.aborted ? { code: 'cancelled', values: {} } : { code: 'server-down', values: { ...server } };
}

/** Asks for something of a known shape. @throws TroubleError also `server-answer` for any other. */
export async function askJson<T>(
  server: ServerName,
  address: string,
  schema: z.ZodType<T>,
  asking: Asking = {},
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
  { size, ...asking }: Asking & { size?: number } = {},
): Promise<Blob> {
  const bytes = await ask(server, address, { ...asking, long: true }, (response) => response.blob());
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
  return ask(server, address, { signal, long: true }, async ({ body }) => {
    if (!body) throw new TroubleError('server-answer', { ...server });
    return take(body);
  });
}

/** Asks for something to be done that has no answer but that it was. @throws TroubleError */
export const askDone = (server: ServerName, address: string, asking: Asking): Promise<void> =>
  ask(server, address, asking, () => Promise.resolve());

/** Tells a server something whose answer does not matter. */
export function tellServer(server: ServerName, address: string, asking: Asking): void {
  askDone(server, address, asking).catch(() => undefined);
}
