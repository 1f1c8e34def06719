import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseFingerprint } from '../../src/core/master/fingerprint';
import type { RenderOrder } from '../render/order';
import { passFiles, type SegmentTask } from '../render/segment';
import { WorkerGateway } from './worker-gateway';
import type { SegmentJob } from './protocol';
import { LIFE, Signer } from './signer';

const folder = mkdtempSync(path.join(tmpdir(), 'desk-'));
const master = path.join(folder, 'master');
writeFileSync(master, 'a film');
const FILM = parseFingerprint('f'.repeat(64));
const order = { plan: {}, making: { picture: {} }, masters: { [FILM]: master } } as unknown as RenderOrder;
const task = (pass: SegmentTask['pass']): SegmentTask => ({
  ...{ segment: { start: 0, frames: 24 }, file: path.join(folder, `${pass}.mkv`) },
  ...{ bits: 1e6, held: false, pass, keepsFrames: false, threads: 2 },
});

let desk: WorkerGateway;
let frames = 0;
beforeAll(async () => {
  desk = await WorkerGateway.open('http://127.0.0.1:0');
});
afterAll(() => desk.close());

const issue = (pass: SegmentTask['pass']) =>
  desk.issue({ order, task: task(pass), onFrame: (done) => (frames = done) });
const errandOf = async (ticket: string) => (await (await fetch(ticket)).json()) as SegmentJob;
const put = (address: string, body: string) => fetch(address, { method: 'PUT', body });

describe('the desk that workers come to', () => {
  it('gives a master, takes what is made whole, and hears how far it is', async () => {
    const ticket = issue(1);
    const { masters, made, kept } = await errandOf(ticket);
    expect(await (await fetch(masters[FILM]!)).text()).toBe('a film');
    const part = await fetch(masters[FILM]!, { headers: { range: 'bytes=2-5' } });
    expect([part.status, await part.text()]).toEqual([206, 'film']);
    expect(Object.keys(made)).toEqual(['segment', 'log', 'tree']);
    expect(kept).toEqual({});
    expect((await put(made.segment!, 'pictures')).status).toBe(204);
    expect((await put(made.log!, 'a log')).status).toBe(204);
    expect(readFileSync(task(1).file, 'utf8')).toBe('pictures');
    expect(readFileSync(passFiles(task(1).file).log, 'utf8')).toBe('a log');
    const headers = { 'content-type': 'application/json' };
    const told = await fetch(ticket, { method: 'POST', headers, body: JSON.stringify({ frames: 7 }) });
    expect([told.status, frames]).toEqual([204, 7]);
    const odd = await fetch(ticket, { method: 'POST', headers, body: JSON.stringify({ frames: -1 }) });
    expect(odd.status).toBe(422);
  });

  it('gives a second pass what the first left', async () => {
    writeFileSync(passFiles(task(2).file).log, 'bits');
    const { kept, made } = await errandOf(issue(2));
    expect(Object.keys(kept)).toEqual(['log']);
    expect(await (await fetch(kept.log!)).text()).toBe('bits');
    expect(Object.keys(made)).toEqual(['segment']);
  });

  it('gives nothing to who has no ticket, no proof, or one for something else', async () => {
    const ticket = issue(1);
    const { masters, made } = await errandOf(ticket);
    const plain = masters[FILM]!.split('?')[0]!;
    expect((await fetch(plain)).status).toBe(403);
    expect((await fetch(`${plain}?until=${Date.now() + 1e6}&proof=x`)).status).toBe(403);
    const proof = new URL(made.segment!).search;
    expect((await fetch(`${plain}${proof}`)).status).toBe(403);
    expect((await put(masters[FILM]!, 'x')).status).toBe(404);
    expect((await put(made.segment!.replace('made/segment', 'made/tree'), 'x')).status).toBe(403);
    expect((await fetch(ticket.replace(/.$/, '_'))).status).toBe(404);
    expect(readFileSync(master, 'utf8')).toBe('a film');
  });

  it('takes nothing that nobody waits for any longer', async () => {
    const ticket = issue(null);
    const { made, masters } = await errandOf(ticket);
    desk.revoke(ticket);
    expect((await put(made.segment!, 'late')).status).toBe(404);
    expect((await fetch(masters[FILM]!)).status).toBe(404);
    expect((await fetch(ticket)).status).toBe(404);
    expect(existsSync(task(null).file)).toBe(false);
  });
});

describe('a signed address', () => {
  const signer = new Signer();
  const good = new URL(signer.sign('GET', 'http://127.0.0.1/work/1', 1000));
  const query = Object.fromEntries(good.searchParams);

  it('is good for its life, for one method and one path', () => {
    expect(signer.isGood('GET', '/work/1', query, 1000 + LIFE - 1)).toBe(true);
    expect(signer.isGood('GET', '/work/1', query, 1000 + LIFE)).toBe(false);
    expect(signer.isGood('PUT', '/work/1', query, 1001)).toBe(false);
    expect(signer.isGood('GET', '/work/2', query, 1001)).toBe(false);
    expect(signer.isGood('GET', '/work/1', { ...query, until: String(9e15) }, 1001)).toBe(false);
    expect(new Signer().isGood('GET', '/work/1', query, 1001)).toBe(false);
    expect(signer.isGood('GET', '/work/1', {}, 1001)).toBe(false);
  });
});
