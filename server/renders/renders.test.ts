import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import Sqlite from 'libsql';
import { toJobEncodeSettings, planOfJob } from '../../src/core/check/check';
import type { Job } from '../../src/core/job/job';
import {
  masterPath,
  RENDER_MASTERS,
  RENDER_UPLOADS,
  renderMark,
  renderEvents,
  renderPath,
  RENDERS,
  renderedPath,
} from '../../src/core/job/render-service';
import { SHIPPED_SHEETS } from '../../src/core/outlets/shipped';
import { jobOf } from '../../tests/create-job';
import { makeClip, probe } from '../../tests/make-clip';
import { smallJob } from '../../tests/small-order';
import { OWN_FONT, wordedJob } from '../../tests/worded-job';
import { openDatabase } from '../store/database';
import { Client, openTestServer, type TestServer } from '../test-client';

const film = makeClip('asked.mp4', { size: '320x180', seconds: 3 });
const bytes = new Uint8Array(readFileSync(film));
let server: TestServer;
let client: Client;
let later: TestServer | null = null;

beforeEach(async () => {
  server = await openTestServer();
  client = new Client(server.origin);
});
afterEach(async () => {
  await server.close();
  await later?.close();
  later = null;
});

/** A request for the film on a small canvas. */
async function asked(change: (job: Job) => Job = (job) => job): Promise<object> {
  const small = change(await smallJob(film, { rate: { kind: 'quality', quantiser: 30 } }));
  const sheets = [...SHIPPED_SHEETS];
  const mark = renderMark(planOfJob(small, sheets), toJobEncodeSettings(small, { sheets }));
  const { exports: _exports, posts: _posts, ...rest } = small;
  return { job: rest, clip: 'clip-1', canvas: 'canvas-1', sheets, mark };
}

const send = (address: string, body: unknown, method = 'POST') =>
  client.fetch(address, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });

async function fingerprint(): Promise<string> {
  return (await jobOf(film)).masters[0]!.fingerprint;
}

async function sendSource(source: Uint8Array, print: string): Promise<void> {
  const upload = await client.upload(RENDER_UPLOADS, source, 3);
  expect((await send(masterPath(print), { upload }, 'PUT')).status).toBe(204);
}

const sendMaster = async (): Promise<void> => sendSource(bytes, await fingerprint());

/** The states that a file's events tell, to their end. */
async function eventsOf(id: string): Promise<{ state: string }[]> {
  const response = await client.fetch(renderEvents(id));
  expect(response.headers.get('content-type')).toBe('text/event-stream');
  const text = await response.text();
  return [...text.matchAll(/^data: (.*)$/gm)].map(([, data = '']) => JSON.parse(data) as { state: string });
}

const stateOf = async (id: string): Promise<{ state: string }> =>
  (await (await client.fetch(renderPath(id))).json()) as { state: string };

async function begun(): Promise<string> {
  const response = await send(RENDERS, await asked());
  expect(response.status).toBe(202);
  return ((await response.json()) as { id: string }).id;
}

describe('a file that a browser asks for', () => {
  it('is made of a master that goes up once, with its progress told, and is fetched and forgotten', async () => {
    expect((await send(RENDERS, await asked())).status).toBe(409);
    await sendMaster();
    expect(await (await client.fetch(RENDER_MASTERS)).json()).toEqual({ masters: [await fingerprint()] });
    const id = await begun();
    const events = await eventsOf(id);
    expect(events.at(-1)).toMatchObject({ state: 'done' });
    const file = path.join(server.data, 'fetched.mp4');
    writeFileSync(file, Buffer.from(await (await client.fetch(renderedPath(id))).arrayBuffer()));
    expect(probe(file)[0]).toMatchObject({ codec_name: 'h264', width: 180, height: 320, nb_frames: '72' });
    expect(execFileSync('ffmpeg', ['-v', 'error', '-i', file, '-f', 'null', '-']).toString()).toBe('');
    expect((await client.fetch(renderPath(id), { method: 'DELETE' })).status).toBe(204);
    expect((await client.fetch(renderPath(id))).status).toBe(404);
    await client.fetch(masterPath(await fingerprint()), { method: 'DELETE' });
    expect(readdirSync(path.join(server.data, 'masters'))).toEqual([]);
    expect(readdirSync(path.join(server.data, 'rendered'))).toEqual([]);
  }, 60_000);

  it('has words in a font of the person’s own, which goes up as the master does', async () => {
    await sendMaster();
    const refused = await send(RENDERS, await asked(wordedJob));
    expect([refused.status, await refused.json()]).toEqual([
      409,
      { error: 'a font of the clip’s words is not here' },
    ]);
    await sendSource(new Uint8Array(readFileSync(OWN_FONT.file)), OWN_FONT.fingerprint);
    const response = await send(RENDERS, await asked(wordedJob));
    const { id } = (await response.json()) as { id: string };
    expect((await eventsOf(id)).at(-1)).toMatchObject({ state: 'done' });
  }, 60_000);

  it('is nobody else’s to see, to stop or to fetch, and neither is its master', async () => {
    await sendMaster();
    const id = await begun();
    const other = new Client(server.origin);
    for (const address of [renderPath(id), renderEvents(id), renderedPath(id)])
      expect((await other.fetch(address)).status).toBe(404);
    expect((await other.fetch(renderPath(id), { method: 'DELETE' })).status).toBe(404);
    expect(await (await other.fetch(RENDER_MASTERS)).json()).toEqual({ masters: [] });
    expect((await client.fetch(renderPath(id))).status).toBe(200);
    await client.fetch(renderPath(id), { method: 'DELETE' });
  }, 60_000);

  it('goes on when the server starts again', async () => {
    await sendMaster();
    const id = await begun();
    await server.close();
    later = await openTestServer(server.data);
    // The browser keeps its cookie.
    Object.assign(client, { origin: later.origin });
    expect((await eventsOf(id)).at(-1)).toMatchObject({ state: 'done' });
  }, 60_000);

  it('over which the server ended again and again is given up, and not counted where it was stopped', async () => {
    await sendMaster();
    const id = await begun();
    await server.close();
    const database = openDatabase(server.data);
    expect(database.prepare('select starts from renders').all()).toEqual([{ starts: 0 }]);
    database.exec('update renders set starts = 5');
    database.close();
    later = await openTestServer(server.data);
    Object.assign(client, { origin: later.origin });
    expect((await eventsOf(id)).at(-1)).toEqual({ state: 'failed', fault: 'ended-server' });
  }, 60_000);

  it('is recorded once the database can be written again', async () => {
    await sendMaster();
    const other = new Sqlite(path.join(server.data, 'gusset.db'));
    const id = await begun();
    await expect(async () => (await stateOf(id)).state === 'running').toBecomeTrue();
    other.exec('begin immediate');
    setTimeout(() => other.exec('rollback'), 5000);
    expect((await eventsOf(id)).at(-1)).toMatchObject({ state: 'done' });
    other.close();
  }, 60_000);

  it('takes up nothing that a server of another version left', async () => {
    await sendMaster();
    const id = await begun();
    await server.close();
    const parts = path.join(server.data, 'rendered', `${id}.parts`);
    for (const folder of [parts, path.join(parts, 'another')]) {
      mkdirSync(folder, { recursive: true });
      for (const n of [0, 1]) writeFileSync(path.join(folder, `${n}.made.mkv`), 'no film');
    }
    later = await openTestServer(server.data);
    Object.assign(client, { origin: later.origin });
    expect((await eventsOf(id)).at(-1)).toMatchObject({ state: 'done' });
    expect(existsSync(parts)).toBe(false);
  }, 60_000);

  it('is refused where it cannot be what was asked', async () => {
    await sendMaster();
    const good = await asked();
    expect((await send(RENDERS, { ...good, mark: 'another' })).status).toBe(422);
    expect((await send(RENDERS, { ...good, canvas: 'canvas-9' })).status).toBe(422);
    expect((await send(RENDERS, { ...good, job: {} })).status).toBe(422);
    expect((await client.fetch(RENDERS, { method: 'POST', body: 'x' })).status).toBe(422);
  });

  it('has no master that is another file than it says, or not whole', async () => {
    const name = masterPath(await fingerprint());
    const upload = await client.upload(RENDER_UPLOADS, bytes.slice(0, 1000));
    expect((await send(name, { upload }, 'PUT')).status).toBe(422);
    expect((await send(name, { upload }, 'PUT')).status).toBe(404);
    expect((await send(name, { upload: '../x' }, 'PUT')).status).toBe(422);
    const part = (await client.create(RENDER_UPLOADS, 10)).headers.get('location')?.split('/').pop();
    expect((await send(name, { upload: part }, 'PUT')).status).toBe(409);
  });

  it('is forgotten after a day with its master', async () => {
    await sendMaster();
    const id = await begun();
    await eventsOf(id);
    const { renders, masters } = server.swept.renders;
    await renders.sweep(Date.now() + 1);
    await masters.sweep(Date.now() + 1);
    expect((await client.fetch(renderPath(id))).status).toBe(404);
    expect(await (await client.fetch(RENDER_MASTERS)).json()).toEqual({ masters: [] });
  }, 60_000);
});
