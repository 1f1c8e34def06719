import { readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { MAX_FORM_BYTES } from '../src/core/outlets/post-form';
import { makeClip } from '../tests/make-clip';
import { Client, FORM, openTestServer, type TestServer } from './test-client';

const tall = { size: '1080x1920', seconds: 1 };
const UPLOADS = '/outlets/verrow/api/uploads';
let server: TestServer;
let client: Client;

beforeAll(async () => {
  server = await openTestServer();
  client = await new Client(server.origin).signIn('verrow');
});
afterAll(() => server.close());

async function post(file: string, change: Partial<typeof FORM> = {}, pieces = 1) {
  const upload = await client.upload(UPLOADS, readFileSync(file), pieces);
  return client.posted('verrow', { ...FORM, ...change, upload });
}

describe('the app', () => {
  it('is served isolated, under a policy that runs only its own scripts', async () => {
    const { headers } = await client.fetch('/');
    expect(headers.get('cross-origin-opener-policy')).toBe('same-origin');
    expect(headers.get('cross-origin-embedder-policy')).toBe('require-corp');
    expect(headers.get('content-security-policy')).toContain("script-src 'self' 'wasm-unsafe-eval';");
    expect(headers.get('x-powered-by')).toBeNull();
  });

  it('answers every page with the app, and a missing file with 404', async () => {
    expect(await (await client.fetch(`/job/x/frame`)).text()).toContain('app');
    expect((await client.fetch(`/missing.js`)).status).toBe(404);
    expect((await client.fetch(`/outlets/nobody/`)).status).toBe(404);
  });
});

describe('an outlet', () => {
  it('takes a clip that keeps its rules, in pieces, and shows it with its words made safe', async () => {
    const clip = makeClip('good.mp4', tall);
    const answer = await post(clip, {}, 3);
    expect(answer).toMatchObject({
      state: 'up',
      page: expect.stringContaining('/posts/'),
    });
    const page = await (await client.fetch(`/outlets/verrow/`)).text();
    expect(page).toContain('A &lt;kite&gt;');
    expect(page).toContain('Private: only you see it');
    expect(page).toContain('1080×1920, 0:01.0 at 23.976 fps');
    expect(page).toContain('no black bars');
    const part = await client.fetch(`/outlets/verrow/clips/${answer.id}.mp4`, {
      headers: { range: 'bytes=4-7' },
    });
    expect(part.status).toBe(206);
    expect(await part.text()).toBe('ftyp');
  });

  it.each<[string, Parameters<typeof makeClip>[1], Partial<typeof FORM>, RegExp]>([
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
    expect(answer).toMatchObject({ state: 'refused' });
    expect('reasons' in answer && answer.reasons.join(' ')).toMatch(reason);
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
    const send = async (more: object) => (await client.post('verrow', { ...FORM, ...more })).status;
    expect(await send({ upload: '0'.repeat(32) })).toBe(404);
    expect(await send({ upload: '../posts' })).toBe(400);
    expect(await send({ upload: 'x', description: 'x'.repeat(200_000) })).toBe(400);
    expect(await send({ upload: 'x', cover: 'x'.repeat(MAX_FORM_BYTES) })).toBe(413);
  });

  it('takes no upload past its largest cap', async () => {
    await client.signIn('tesselle');
    const { status } = await client.create('/outlets/tesselle/api/uploads', 200_000_000);
    expect(status).toBe(413);
  });
});
