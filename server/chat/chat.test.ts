import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { CHAT_UPLOADS, chatFilePath } from '../../src/core/posting/chat';
import { makeClip } from '../../tests/make-clip';
import { OUTLET_CONTAINERS } from '../programs/media-args';
import { Programs } from '../programs/programs';
import { probeIndex } from '../programs/probe';
import { findTools } from '../programs/tools';
import { Client, openTestServer, type TestServer } from '../test-client';

const film = readFileSync(makeClip('sent.mp4', { size: '1080x1920', rate: '60', seconds: 2 }));
let server: TestServer;
let client: Client;
beforeAll(async () => {
  server = await openTestServer();
  client = new Client(server.origin);
});
afterAll(() => server.close());

const left = (): string[] => readdirSync(path.join(server.data, 'chat'));
async function emptied(): Promise<void> {
  while (left().length > 0) await new Promise((resolve) => setTimeout(resolve, 50));
}

describe('the stand-in of a chat app', () => {
  it('gives back half the size, at 25 frames a second, with one channel, and keeps nothing', async () => {
    const upload = await client.upload(CHAT_UPLOADS, film);
    const response = await client.fetch(chatFilePath(upload));
    expect(response.status).toBe(200);
    const file = path.join(mkdtempSync(path.join(tmpdir(), 'chat-')), 'got.mp4');
    writeFileSync(file, Buffer.from(await response.arrayBuffer()));
    const { video, audio } = await probeIndex(new Programs(await findTools(), 1), file, OUTLET_CONTAINERS);
    expect(video).toMatchObject({ width: 540, height: 960, nb_frames: 50 });
    expect(audio).toMatchObject({ channels: 1 });
    expect(readFileSync(file).length).toBeLessThan(film.length);
    await emptied();
    expect((await client.fetch(chatFilePath(upload))).status).toBe(404);
  });

  it('says what is no film, and lets it go', async () => {
    const upload = await client.upload(CHAT_UPLOADS, Buffer.from('no film'));
    expect((await client.fetch(chatFilePath(upload))).status).toBe(422);
    await emptied();
  });

  it('stops, and leaves nothing, when whoever asked goes away', async () => {
    const upload = await client.upload(CHAT_UPLOADS, film);
    const stop = new AbortController();
    const asked = client.fetch(chatFilePath(upload), { signal: stop.signal }).catch(() => null);
    await new Promise((resolve) => setTimeout(resolve, 150));
    stop.abort();
    expect(await asked).toBeNull();
    await emptied();
  });

  it('gives the same file to one who asks at a time', async () => {
    const upload = await client.upload(CHAT_UPLOADS, film);
    const answers = await Promise.all([1, 2, 3].map(() => client.fetch(chatFilePath(upload))));
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 404, 404]);
    for (const answer of answers) await answer.arrayBuffer();
    await emptied();
  });
});
