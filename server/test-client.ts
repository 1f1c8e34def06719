import { mkdtempSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Sheets } from '../src/core/outlets/rule-sheet';
import { type GussetServer, openServer } from './app';

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
  private cookie = '';

  constructor(readonly origin: string) {}

  async fetch(address: string, init: RequestInit = {}): Promise<Response> {
    const headers = new Headers(init.headers);
    if (this.cookie) headers.set('cookie', this.cookie);
    const response = await fetch(new URL(address, this.origin), { ...init, headers });
    const [set] = response.headers.getSetCookie();
    if (set) this.cookie = set.split(';')[0] ?? '';
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
  async upload(door: string, file: Uint8Array, pieces = 1): Promise<string> {
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
    return address.split('/').pop() ?? '';
  }

  post(outlet: string, form: unknown): Promise<Response> {
    return this.fetch(`/outlets/${outlet}/api/posts`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(form),
    });
  }
}

/** A server on loopback with a folder of its own. */
export interface TestServer extends GussetServer {
  origin: string;
  data: string;
}

/** @param sheets what its outlets judge by; those that ship where none are given. */
export async function openTestServer(
  data = mkdtempSync(path.join(tmpdir(), 'data-')),
  sheets?: Sheets,
): Promise<TestServer> {
  const dist = mkdtempSync(path.join(tmpdir(), 'dist-'));
  writeFileSync(path.join(dist, 'index.html'), '<title>app</title>');
  const gusset = await openServer({ dist, data, ...(sheets ? { sheets } : {}) });
  // Making clips holds the thread up for longer than idle connections are kept by default.
  const server = http.createServer({ keepAliveTimeout: 120_000 }, gusset.app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  return {
    ...gusset,
    data,
    origin: `http://127.0.0.1:${port}`,
    async close() {
      server.close();
      server.closeAllConnections();
      await gusset.close();
    },
  };
}
