import { createHash, randomBytes } from 'node:crypto';
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import { type AddressInfo, connect } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseRandomId } from '../../src/core/figures/random-id';
import {
  HAND_OFF_UPLOADS,
  type Offer,
  offerSchema,
  offersSchema,
  OFFERS,
} from '../../src/core/posting/hand-off';
import { makeClip } from '../../tests/make-clip';
import { SEED, seeded } from '../../tests/soak';
import { Client, openTestServer, type TestServer } from '../test-client';
import { createListener, NETWORK } from '../listener';
import { Offers } from './offers';
import { phoneSite } from './phone-site';

const film = readFileSync(makeClip('good.mp4', { size: '1080x1920', seconds: 1 }));
const hashOf = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const WORKERS = mkdtempSync(path.join(tmpdir(), 'workers-'));
writeFileSync(path.join(WORKERS, 'phone-check-ABC.js'), 'void 0;');

let server: TestServer;
let desk: Client;
let phones: http.Server;
/** Where phones reach it, and a way to ask there with any headers. */
let site: string;

async function listen(offers: Offers): Promise<{ server: http.Server; origin: string }> {
  let host = '';
  const server = createListener(
    phoneSite(offers, () => host, WORKERS),
    NETWORK,
  );
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
  return { server, origin: `http://${host}` };
}

beforeAll(async () => {
  server = await openTestServer();
  desk = new Client(server.origin);
  const opened = await listen(server.handOff.offers);
  [phones, site] = [opened.server, opened.origin];
  server.handOff.lan = site;
});
afterAll(async () => {
  phones.close();
  phones.closeAllConnections();
  await server.close();
});

async function offer(client = desk, fileName = 'Kites “one” é.mp4'): Promise<Offer> {
  const upload = await client.upload(HAND_OFF_UPLOADS, film);
  const body = JSON.stringify({ id: randomBytes(16).toString('hex'), upload, fileName });
  const response = await client.fetch(OFFERS, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body,
  });
  expect(response.status).toBe(201);
  return offerSchema.parse(await response.json());
}

async function standOf(id: string): Promise<Offer | undefined> {
  const { offers } = offersSchema.parse(await (await desk.fetch(OFFERS)).json());
  return offers.find((known) => known.id === id);
}

const tell = (address: string, bytes: number, sha256: string) =>
  fetch(`${address}/arrived`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ bytes, sha256 }),
  });

/** A request with any headers: `fetch` sets some of them itself. */
function statusWith(address: string, headers: Record<string, string>): Promise<number> {
  const { hostname, port, pathname } = new URL(address);
  return new Promise((resolve, reject) => {
    http
      .get({ host: hostname, port, path: pathname, headers }, (response) => {
        response.resume();
        resolve(response.statusCode ?? 0);
      })
      .on('error', reject);
  });
}

describe('a file that is handed to a phone', () => {
  it('comes whole, under an address with 128 bits in it, with its facts on the page', async () => {
    const { address, sha256 } = await offer();
    // 26 letters of 5 bits (RFC 4648, 6).
    expect(new URL(address).pathname).toMatch(/^\/[a-z2-7]{26}$/);
    expect(sha256).toBe(hashOf(film));
    const page = await (await fetch(address)).text();
    for (const fact of [`${film.length} bytes`, '1 s', sha256]) expect(page).toContain(fact);
    const response = await fetch(`${address}/file`);
    expect(response.headers.get('content-disposition')).toContain(
      "filename*=UTF-8''Kites%20%E2%80%9Cone%E2%80%9D%20%C3%A9.mp4",
    );
    expect(hashOf(new Uint8Array(await response.arrayBuffer()))).toBe(sha256);
  });

  it('comes in ranges out of order, from many starts, and is the same (RFC 9110, 14)', async () => {
    const { id, address, sha256, bytes } = await offer();
    const random = seeded(SEED);
    const cuts = [0, bytes, ...Array.from({ length: 6 }, () => Math.floor(random() * bytes))].sort(
      (a, b) => a - b,
    );
    const pieces = cuts
      .slice(1)
      .map((to, n) => ({ from: cuts[n]!, to }))
      .filter(({ from, to }) => to > from);
    const got = Buffer.alloc(bytes);
    const etag = (await fetch(`${address}/file`, { method: 'HEAD' })).headers.get('etag') ?? '';
    for (const { from, to } of pieces.toSorted(() => random() - 0.5)) {
      const headers = { range: `bytes=${from}-${to - 1}`, 'if-range': etag };
      const response = await fetch(`${address}/file`, { headers });
      expect([response.status, response.headers.get('content-range')]).toEqual([
        206,
        `bytes ${from}-${to - 1}/${bytes}`,
      ]);
      Buffer.from(await response.arrayBuffer()).copy(got, from);
    }
    expect(hashOf(got)).toBe(sha256);
    expect(await standOf(id)).toMatchObject({ state: 'open', starts: pieces.length, fetched: bytes });
    // What lies past the end is none of it.
    const past = await fetch(`${address}/file`, { headers: { range: `bytes=${bytes + 5}-` } });
    expect(past.status).toBe(416);
    // What is asked for of another file comes from its start.
    const other = await fetch(`${address}/file`, { headers: { range: 'bytes=5-', 'if-range': '"other"' } });
    expect(other.status).toBe(200);
    await other.arrayBuffer();
  });

  it('stays open while what arrived differs, and is closed and deleted once it is the same', async () => {
    const { id, address, bytes, sha256, upload } = await offer();
    const kept = server.handOff.offers.door.getFile(upload);
    expect(await (await tell(address, bytes - 1, hashOf(film.subarray(1)))).json()).toEqual({ same: false });
    expect(await standOf(id)).toMatchObject({ state: 'open', found: { bytes: bytes - 1, same: false } });
    expect(existsSync(kept)).toBe(true);
    expect(await (await tell(address, bytes, sha256)).json()).toEqual({ same: true });
    expect(await standOf(id)).toMatchObject({ state: 'arrived', found: { same: true } });
    expect(existsSync(kept)).toBe(false);
    for (const used of [address, `${address}/file`]) expect((await fetch(used)).status).toBe(410);
    expect((await tell(address, bytes, sha256)).status).toBe(410);
  });

  it('is over when its time is, or when the desk takes it back', async () => {
    const { door } = server.handOff.offers;
    const brief = new Offers(door, () => Promise.resolve(null), 300);
    const { server: own, origin } = await listen(brief);
    const upload = await desk.upload(HAND_OFF_UPLOADS, film);
    const kept = await brief.open(
      { id: parseRandomId('a'.repeat(32)), upload, fileName: 'a.mp4' },
      'visitor',
    );
    const address = `${origin}/${kept?.token}`;
    expect((await fetch(address)).status).toBe(200);
    await new Promise((resolve) => setTimeout(resolve, 700));
    const late = await fetch(address);
    expect([late.status, await late.text()]).toEqual([410, expect.stringContaining('has run out')]);
    expect(brief.longer(kept!)).toBeNull();
    own.close();
    own.closeAllConnections();

    const { id, address: open } = await offer();
    await desk.fetch(`${OFFERS}/${id}`, { method: 'DELETE' });
    expect((await fetch(open)).status).toBe(410);
  });

  it('is nobody’s who guesses, comes by another name, or from another page', async () => {
    const { address } = await offer();
    const { host, pathname } = new URL(address);
    const guess = `${site}/${pathname.slice(1, -1)}${pathname.endsWith('a') ? 'b' : 'a'}`;
    expect((await fetch(guess)).status).toBe(404);
    expect((await fetch(`${guess}/file`)).status).toBe(404);
    for (const name of [
      'example.test',
      `localhost:${host.split(':')[1]}`,
      '127.0.0.1',
      `${host}.example.test`,
    ])
      expect(await statusWith(address, { host: name })).toBe(421);
    expect(await statusWith(address, { host, origin: 'http://example.test' })).toBe(403);
    expect(await statusWith(address, { host })).toBe(200);
  });

  it('is all that a phone reaches: not the app, not posts, not uploads', async () => {
    for (const other of [
      '/',
      '/index.html',
      '/posting/api/posts',
      HAND_OFF_UPLOADS,
      OFFERS,
      '/outlets/verrow/',
      '/..%2f',
    ])
      expect([other, (await fetch(`${site}${other}`)).status]).toEqual([other, 404]);
    expect((await fetch(`${site}${HAND_OFF_UPLOADS}`, { method: 'POST' })).status).toBe(404);
  });

  it('answers what cannot be read in a few words, without where it failed', async () => {
    const { address } = await offer();
    for (const [bad, status] of [
      [`${site}/%ff`, 400],
      [`${site}/x/arrived`, 404],
      [`${address}/arrived`, 400],
    ] as const) {
      const json = { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{bad' };
      const response = await fetch(bad, json);
      expect([bad, response.status]).toEqual([bad, status]);
      expect(await response.text()).not.toMatch(/node_modules|server-build|\.ts\b|\.cjs|\n +at /);
    }
  });

  it('has a name that can be sent, whatever it was called', async () => {
    const { address } = await offer(desk, 'half \ud83d of one\r\n.mp4');
    const response = await fetch(`${address}/file`);
    expect(response.status).toBe(200);
    expect(response.headers.get('content-disposition')).toContain('half');
    await response.arrayBuffer();
  });

  it('stays where another offer of the same file is taken back', async () => {
    const first = await offer();
    const body = JSON.stringify({ ...first, id: randomBytes(16).toString('hex') });
    const headers = { 'content-type': 'application/json' };
    const second = offerSchema.parse(
      await (await desk.fetch(OFFERS, { method: 'POST', headers, body })).json(),
    );
    await desk.fetch(`${OFFERS}/${first.id}`, { method: 'DELETE' });
    expect((await fetch(`${second.address}/file`)).status).toBe(200);
    await desk.fetch(`${OFFERS}/${second.id}`, { method: 'DELETE' });
    expect(existsSync(server.handOff.offers.door.getFile(first.upload))).toBe(false);
  });

  it('is reached by others while one of them opens connections without end', async () => {
    const { port } = new URL(site);
    const sockets = Array.from({ length: 300 }, () => {
      const socket = connect(Number(port), '127.0.0.1');
      return socket.on('error', () => undefined);
    });
    await new Promise((resolve) => setTimeout(resolve, 500));
    expect(sockets.filter((socket) => !socket.closed).length).toBeLessThanOrEqual(40);
    for (const socket of sockets) socket.destroy();
  });

  it('is only its own desk’s to see and to close', async () => {
    const { id, address } = await offer();
    const other = new Client(server.origin);
    await offer(other);
    expect(
      offersSchema.parse(await (await other.fetch(OFFERS)).json()).offers.map((known) => known.id),
    ).not.toContain(id);
    await other.fetch(`${OFFERS}/${id}`, { method: 'DELETE' });
    expect((await other.fetch(`${OFFERS}/${id}/longer`, { method: 'POST' })).status).toBe(404);
    expect((await fetch(address)).status).toBe(200);
  });

  it('is one offer, however often it is asked for at once, and the copies of its file go', async () => {
    const id = randomBytes(16).toString('hex');
    const uploads = await Promise.all([1, 2, 3].map(() => desk.upload(HAND_OFF_UPLOADS, film)));
    const answers = await Promise.all(
      uploads.map(async (upload) => {
        const body = JSON.stringify({ id, upload, fileName: 'a.mp4' });
        const headers = { 'content-type': 'application/json' };
        return offerSchema.parse(await (await desk.fetch(OFFERS, { method: 'POST', headers, body })).json());
      }),
    );
    expect(new Set(answers.map(({ address }) => address)).size).toBe(1);
    const kept = uploads.filter((upload) => existsSync(server.handOff.offers.door.getFile(upload)));
    expect(kept).toEqual([answers[0]?.upload]);
    expect((await fetch(`${answers[0]?.address}/file`)).status).toBe(200);
  });

  it('is refused where no phone reaches the server, or the file is not whole', async () => {
    const ask = (upload: string) =>
      desk.fetch(OFFERS, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ id: randomBytes(16).toString('hex'), upload, fileName: 'a.mp4' }),
      });
    expect((await ask('f'.repeat(32))).status).toBe(409);
    server.handOff.lan = null;
    expect((await ask('f'.repeat(32))).status).toBe(503);
    server.handOff.lan = site;
  });
});
