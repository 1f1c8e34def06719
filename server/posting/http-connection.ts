import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { z } from 'zod';
import {
  abilitiesSchema,
  KEY_HEADER,
  OUTLET_API,
  outletAccountSchema,
  type OutletError,
  outletErrorSchema,
  type OutletPost,
  outletPostSchema,
} from '../../src/core/outlets/outlet-api';
import { collectionsSchema, longVideosSchema } from '../../src/core/posting/accounts';
import { parseRetryAfter } from '../../src/core/posting/retry';
import {
  OutletClientError,
  type OutletConnection,
  type Shipment,
  type ShipmentNews,
} from './outlet-connection';
import { sendByTus } from './send-by-tus';

/** An answer is waited for so long, in milliseconds. */
const PATIENCE = 30_000;
/** Timeout for fetching the compressed file, in milliseconds. */
const LONG_PATIENCE = 600_000;
/** Pictures of accounts: their types, and the largest. */
const PICTURE_TYPES = /^image\/(svg\+xml|png|jpeg|webp)\b/;
const MAX_PICTURE_BYTES = 1_000_000;

interface RequestOptions {
  method?: 'GET' | 'POST' | 'PATCH' | 'DELETE';
  token?: string;
  headers?: Record<string, string>;
  body?: unknown;
  patience?: number;
}

/** Where an outlet is reached; both without a slash at the end. */
export interface HttpRoots {
  /** Its address. */
  root: string;
  /** Base of its pages' addresses for a browser: a stand-in's is a path on this server, since that has several names. */
  pagesRoot: string;
}

/** The way to an outlet that keeps the contract of `docs/outlet-api.yaml`. */
export function createHttpConnection({ root, pagesRoot }: HttpRoots): OutletConnection {
  async function ask(
    address: string,
    { method = 'GET', token, headers, body, patience = PATIENCE }: RequestOptions,
  ) {
    const response = await fetch(`${root}${address}`, {
      method,
      // A token goes nowhere else.
      redirect: 'error',
      signal: AbortSignal.timeout(patience),
      headers: {
        ...headers,
        ...(token === undefined ? {} : { authorization: `Bearer ${token}` }),
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    }).catch((error: unknown) => {
      throw new OutletClientError('down', `the outlet cannot be reached: ${String(error)}`);
    });
    if (response.ok) return response;
    throw toRefusal(
      response.status,
      await response.text().catch(() => ''),
      response.headers.get('retry-after'),
    );
  }
  async function readJson<T>(schema: z.ZodType<T>, address: string, asking: RequestOptions = {}): Promise<T> {
    const response = await ask(address, asking);
    const text = await response.text().catch((error: unknown) => {
      throw new OutletClientError('down', `the answer broke off: ${String(error)}`);
    });
    const found = schema.safeParse(parseJson(text));
    if (!found.success) throw new OutletClientError('answer', `an answer of ${address} has another shape`);
    return found.data;
  }
  async function readPost(address: string, asking: RequestOptions): Promise<OutletPost> {
    const post = await readJson(outletPostSchema, address, asking);
    return post.state === 'up' ? { ...post, page: `${pagesRoot}${post.page}` } : post;
  }
  return {
    abilities: () => readJson(abilitiesSchema, OUTLET_API.abilities),
    account: (token) => readJson(outletAccountSchema, OUTLET_API.account, { token }),
    upload: (token: string, shipment: Shipment, news: ShipmentNews, signal: AbortSignal) =>
      sendByTus(`${root}${OUTLET_API.uploads}`, token, shipment, news, signal),
    post: (token, key, form) =>
      readPost(OUTLET_API.posts, { method: 'POST', token, headers: { [KEY_HEADER]: key }, body: form }),
    stateOf: (token, id) => readPost(OUTLET_API.post(id), { token }),
    setAudience: (token, id, audience) =>
      readPost(OUTLET_API.post(id), { method: 'PATCH', token, body: { audience } }),
    async takeDown(token, id) {
      await ask(OUTLET_API.post(id), { method: 'DELETE', token }).catch((error: unknown) => {
        if (!(error instanceof OutletClientError && error.code === 'no-post')) throw error;
      });
    },
    async picture(address) {
      const { headers, body } = await ask(address, {});
      const type = headers.get('content-type') ?? '';
      if (!PICTURE_TYPES.test(type) || !body) throw new OutletClientError('answer', 'it is no picture');
      return { type, bytes: await readWithin(body, MAX_PICTURE_BYTES) };
    },
    async fetchViewed(token, id, to) {
      const { body } = await ask(OUTLET_API.viewed(id), { token, patience: LONG_PATIENCE });
      if (!body) throw new OutletClientError('answer', 'what a viewer gets is empty');
      await pipeline(Readable.fromWeb(body as never), createWriteStream(to)).catch((error: unknown) => {
        throw new OutletClientError('down', `the answer broke off: ${String(error)}`);
      });
    },
    collections: async (token) =>
      (await readJson(collectionsSchema, OUTLET_API.collections, { token })).collections,
    longVideos: async (token, search) => {
      const address = `${OUTLET_API.longVideos}?search=${encodeURIComponent(search)}`;
      return (await readJson(longVideosSchema, address, { token })).videos;
    },
  };
}

/** Reads an answer whole. @throws OutletClientError for one that is longer, or breaks off. */
async function readWithin(body: ReadableStream<Uint8Array>, maxBytes: number): Promise<Buffer> {
  const pieces: Uint8Array[] = [];
  let bytes = 0;
  try {
    for await (const piece of Readable.fromWeb(body as never) as AsyncIterable<Uint8Array>) {
      bytes += piece.length;
      if (bytes > maxBytes) throw new OutletClientError('answer', `it has over ${maxBytes} bytes`);
      pieces.push(piece);
    }
  } catch (error) {
    if (error instanceof OutletClientError) throw error;
    throw new OutletClientError('down', `the answer broke off: ${String(error)}`);
  }
  return Buffer.concat(pieces);
}

/** Turns a refused request into an error; also of an outlet that answers in its own way, by its status. */
export function toRefusal(status: number, text: string, retryAfter: string | null): OutletClientError {
  const said = outletErrorSchema.safeParse(parseJson(text));
  const code = said.success ? said.data.error : toCode(status);
  const detail = said.success ? said.data.detail : `it answered ${status}`;
  return new OutletClientError(code, detail, parseRetryAfter(retryAfter, Date.now()));
}

function toCode(status: number): OutletError {
  if (status === 401) return 'token';
  if (status === 403) return 'scope';
  if (status === 404 || status === 410) return 'no-upload';
  if (status === 429) return 'busy';
  if (status === 507) return 'full';
  return status >= 500 ? 'down' : 'bad-request';
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}
