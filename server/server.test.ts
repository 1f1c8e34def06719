import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { makeClip } from '../tests/make-clip';
import { createApp } from './app';

const tall = { size: '1080x1920', seconds: 1 };
const form = {
  placement: 'short',
  title: 'A <kite>',
  description: 'Wind & sea',
  tags: ['upright'],
  audience: 'private',
};
let server: http.Server;
let origin: string;

beforeAll(async () => {
  const dist = mkdtempSync(path.join(tmpdir(), 'dist-'));
  writeFileSync(path.join(dist, 'index.html'), '<title>app</title>');
  // Making clips holds the thread up for longer than idle connections are kept by default.
  server = http.createServer(
    { keepAliveTimeout: 120_000 },
    createApp({ dist, data: mkdtempSync(path.join(tmpdir(), 'data-')) }),
  );
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => server.close());

const TUS = { 'tus-resumable': '1.0.0' };

/** Creates an upload and sends the file in pieces, as the tus 1.0.0 protocol says. @returns the upload's address. */
async function upload(file: Buffer, pieces = 1): Promise<string> {
  const created = await fetch(`${origin}/outlets/verrow/api/uploads`, {
    method: 'POST',
    headers: { ...TUS, 'upload-length': String(file.length) },
  });
  expect(created.status).toBe(201);
  const address = new URL(created.headers.get('location') ?? '', created.url).href;
  const size = Math.ceil(file.length / pieces);
  for (let at = 0; at < file.length; at += size) {
    const head = await fetch(address, { method: 'HEAD', headers: TUS });
    expect(head.headers.get('upload-offset')).toBe(String(at));
    const sent = await fetch(address, {
      method: 'PATCH',
      headers: { ...TUS, 'upload-offset': String(at), 'content-type': 'application/offset+octet-stream' },
      body: new Uint8Array(file.subarray(at, at + size)),
    });
    expect(sent.status).toBe(204);
  }
  return address;
}

async function post(file: string, change: Partial<typeof form> = {}, pieces = 1) {
  const address = await upload(readFileSync(file), pieces);
  const response = await send({ ...form, ...change, upload: address.split('/').pop() });
  return (await response.json()) as { state: string; reasons?: string[]; page?: string };
}

function send(body: unknown): Promise<Response> {
  return fetch(`${origin}/outlets/verrow/api/posts`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
}

describe('the app', () => {
  it('is served isolated, under a policy that runs only its own scripts', async () => {
    const { headers } = await fetch(origin);
    expect(headers.get('cross-origin-opener-policy')).toBe('same-origin');
    expect(headers.get('cross-origin-embedder-policy')).toBe('require-corp');
    expect(headers.get('content-security-policy')).toContain("script-src 'self' 'wasm-unsafe-eval';");
    expect(headers.get('x-powered-by')).toBeNull();
  });

  it('answers every page with the app, and a missing file with 404', async () => {
    expect(await (await fetch(`${origin}/job/x/frame`)).text()).toContain('app');
    expect((await fetch(`${origin}/missing.js`)).status).toBe(404);
    expect((await fetch(`${origin}/outlets/nobody/`)).status).toBe(404);
  });
});

describe('an outlet', () => {
  it('takes a clip that keeps its rules, in pieces, and shows it with its words made safe', async () => {
    const clip = makeClip('good.mp4', tall);
    const answer = await post(clip, {}, 3);
    expect(answer).toMatchObject({ state: 'accepted', page: expect.stringContaining('/outlets/verrow/#') });
    const page = await (await fetch(`${origin}/outlets/verrow/`)).text();
    expect(page).toContain('A &lt;kite&gt;');
    expect(page).toContain('Private: only you see it');
    expect(page).toContain('1080×1920, 0:01.0 at 23.976 fps');
    expect(page).toContain('no black bars');
    const id = answer.page?.split('#')[1];
    const part = await fetch(`${origin}/outlets/verrow/clips/${id}.mp4`, {
      headers: { range: 'bytes=0-99' },
    });
    expect(part.status).toBe(206);
    expect(Buffer.from(await part.arrayBuffer())).toEqual(readFileSync(clip).subarray(0, 100));
  });

  it.each<[string, Parameters<typeof makeClip>[1], Partial<typeof form>, RegExp]>([
    [
      'bars',
      { ...tall, filter: 'scale=1080:608,pad=1080:1920:0:656,setsar=1' },
      {},
      /black bars: left 0, top 656, right 0, bottom 656/,
    ],
    ['another size', { size: '1080x1080', seconds: 1 }, {}, /1080×1080; Short takes 1080×1920/],
    ['too long', { size: '1080x1920', rate: '2', seconds: 61 }, {}, /limit is 60 s/],
    ['a missing tag', tall, { tags: [] }, /#upright is missing/],
    ['another codec', { ...tall, output: ['-c:v', 'mpeg4'] }, {}, /not H\.264/],
  ])('refuses %s by looking at the file itself', async (name, options, change, reason) => {
    const answer = await post(makeClip(`${name}.mp4`, options), change);
    expect(answer.state).toBe('refused');
    expect(answer.reasons?.join(' ')).toMatch(reason);
  });

  it('refuses what is no video', async () => {
    const text = path.join(tmpdir(), 'not-a-video.mp4');
    writeFileSync(text, 'words only');
    expect(await post(text)).toMatchObject({
      state: 'refused',
      reasons: [expect.stringMatching(/not a video/)],
    });
  });

  it('answers a form that is not whole, an unknown upload and a huge form', async () => {
    expect((await send({ ...form, upload: 'nothing' })).status).toBe(404);
    expect((await send({ ...form, upload: '../posts' })).status).toBe(400);
    expect((await send({ ...form, upload: 'x', description: 'x'.repeat(200_000) })).status).toBe(413);
  });

  it('takes no upload past its largest cap', async () => {
    const { status } = await fetch(`${origin}/outlets/tesselle/api/uploads`, {
      method: 'POST',
      headers: { ...TUS, 'upload-length': '200000000' },
    });
    expect(status).toBe(413);
  });
});
