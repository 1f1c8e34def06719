import { randomUUID } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import type http from 'node:http';
import { parseRandomId, type RandomId } from '../src/core/figures/random-id';
import { createListener } from './listener';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type OutletPost, outletPostSchema } from '../src/core/outlets/outlet-api';
import { outletToken } from '../tests/sign-in';
import { type AppOptions, type GussetServer, openServer } from './app';

const TUS = { 'tus-resumable': '1.0.0' };

/** A form that an outlet takes with a good clip. */
export const FORM = {
  placement: 'short',
  title: 'A <kite>',
  description: 'Wind & sea',
  tags: ['upright'],
  audience: 'private',
  forChildren: false,
  longVideo: null,
  cover: null,
};

/** Somebody who talks to a server as the protocols say, and keeps the cookie that it gives. */
export class Client {
  /** By name, whatever path they are for. */
  private readonly cookies = new Map<string, string>();
  /** By outlet. */
  private readonly tokens = new Map<string, string>();

  constructor(readonly origin: string) {}

  async fetch(address: string, init: RequestInit = {}): Promise<Response> {
    const headers = new Headers(init.headers);
    const [, outlet = ''] = /^\/outlets\/([\w-]+)\/api\//.exec(new URL(address, this.origin).pathname) ?? [];
    const token = this.tokens.get(outlet);
    if (token !== undefined && !headers.has('authorization')) headers.set('authorization', `Bearer ${token}`);
    headers.set('cookie', [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; '));
    const response = await fetch(new URL(address, this.origin), { ...init, headers });
    for (const set of response.headers.getSetCookie()) {
      const [pair = ''] = set.split(';');
      const at = pair.indexOf('=');
      const value = pair.slice(at + 1);
      if (value === '') this.cookies.delete(pair.slice(0, at));
      else this.cookies.set(pair.slice(0, at), value);
    }
    return response;
  }

  create(door: string, length: number, more: Record<string, string> = {}): Promise<Response> {
    return this.fetch(door, {
      method: 'POST',
      headers: { ...TUS, 'upload-length': String(length), ...more },
    });
  }

  head(address: string): Promise<Response> {
    return this.fetch(address, { method: 'HEAD', headers: TUS });
  }

  patch(address: string, offset: number, body: Uint8Array<ArrayBuffer>): Promise<Response> {
    const headers = {
      ...TUS,
      'upload-offset': String(offset),
      'content-type': 'application/offset+octet-stream',
    };
    return this.fetch(address, { method: 'PATCH', headers, body });
  }

  /** Creates an upload and sends a file in pieces (tus 1.0.0). @returns the last part of its address. */
  async upload(door: string, file: Uint8Array, pieces = 1): Promise<RandomId> {
    const created = await this.create(door, file.length);
    if (created.status !== 201) throw new Error(`the upload was refused with ${created.status}`);
    const address = created.headers.get('location') ?? '';
    const size = Math.ceil(file.length / pieces);
    for (let offset = 0; offset < file.length; offset += size) {
      const { headers } = await this.head(address);
      if (headers.get('upload-offset') !== String(offset)) throw new Error('the offset is another');
      const sent = await this.patch(address, offset, new Uint8Array(file.subarray(offset, offset + size)));
      if (sent.status !== 204) throw new Error(`a piece was refused with ${sent.status}`);
    }
    return parseRandomId(address.split('/').pop() ?? '');
  }

  /** Reads a cookie that the server gave this browser. */
  cookie(name: string): string | undefined {
    return this.cookies.get(name);
  }

  /** The same browser, at a server that is called otherwise now. */
  at(origin: string): Client {
    const moved = new Client(origin);
    for (const [name, value] of this.cookies) moved.cookies.set(name, value);
    for (const [outlet, token] of this.tokens) moved.tokens.set(outlet, token);
    return moved;
  }

  /** Signs in to an outlet, to speak to it as a program does. */
  async signIn(outlet: string, login = 'odlin'): Promise<this> {
    this.tokens.set(outlet, await outletToken(this, outlet, login));
    return this;
  }

  /** @param key that makes it one post; a new one where none is given. */
  post(outlet: string, form: unknown, key: string = randomUUID()): Promise<Response> {
    return this.fetch(`/outlets/${outlet}/api/posts`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'idempotency-key': key },
      body: JSON.stringify(form),
    });
  }

  /** Posts, and waits until the outlet is done with it. */
  async posted(
    outlet: string,
    form: unknown,
    key?: string,
  ): Promise<Exclude<OutletPost, { state: 'processing' }>> {
    let response = await this.post(outlet, form, key);
    for (;;) {
      if (!response.ok)
        throw new Error(`the post was answered with ${response.status}: ${await response.text()}`);
      const now = outletPostSchema.parse(await response.json());
      if (now.state !== 'processing') return now;
      await new Promise((resolve) => setTimeout(resolve, 30));
      response = await this.fetch(`/outlets/${outlet}/api/posts/${now.id}`);
    }
  }
}

/** A server on loopback with a folder of its own. */
export interface TestServer extends GussetServer {
  origin: string;
  data: string;
  http: http.Server;
}

/** @param more what its outlets judge by, and which are elsewhere. */
export async function openTestServer(
  data = mkdtempSync(path.join(tmpdir(), 'data-')),
  more: Pick<AppOptions, 'sheets' | 'elsewhere'> = {},
): Promise<TestServer> {
  const dist = mkdtempSync(path.join(tmpdir(), 'dist-'));
  writeFileSync(path.join(dist, 'index.html'), '<title>app</title>');
  const gusset = await openServer({ dist, data, ...more });
  const server = createListener(gusset.app);
  // Making clips holds the thread up for longer than idle connections are kept by default.
  server.keepAliveTimeout = 120_000;
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  const origin = `http://127.0.0.1:${port}`;
  gusset.begin(origin);
  return {
    ...gusset,
    data,
    origin,
    http: server,
    async close() {
      server.close();
      server.closeAllConnections();
      await gusset.close();
    },
  };
}
