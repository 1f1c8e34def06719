import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import {
  type Conversion,
  conversionPath,
  conversionSchema,
  CONVERT_ABILITY,
  CONVERT_UPLOADS,
  convertedPath,
} from '../../src/core/convert/protocol';
import { probe } from '../../tests/make-clip';
import { createApp } from '../app';

const TUS = { 'tus-resumable': '1.0.0' };
const data = mkdtempSync(path.join(tmpdir(), 'convert-'));
let server: http.Server;
let origin: string;

beforeAll(async () => {
  const dist = mkdtempSync(path.join(tmpdir(), 'dist-'));
  server = http.createServer({ keepAliveTimeout: 120_000 }, createApp({ dist, data }));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => server.close());

async function upload(file: Buffer): Promise<string> {
  const created = await fetch(origin + CONVERT_UPLOADS, {
    method: 'POST',
    headers: { ...TUS, 'upload-length': String(file.length) },
  });
  const address = new URL(created.headers.get('location') ?? '', created.url).href;
  const headers = { ...TUS, 'upload-offset': '0', 'content-type': 'application/offset+octet-stream' };
  expect((await fetch(address, { method: 'PATCH', headers, body: new Uint8Array(file) })).status).toBe(204);
  return address.split('/').pop() ?? '';
}

async function converted(id: string): Promise<Conversion> {
  for (let method = 'POST'; ; method = 'GET') {
    const response = await fetch(origin + conversionPath(id), { method });
    const now = conversionSchema.parse(await response.json());
    if (now.state !== 'running') return now;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/** A film in a codec that browsers lack, its frames at uneven times. */
function oddFilm(): string {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'odd-')), 'odd.mkv');
  const source = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=30:d=2'];
  const uneven = ['-vf', "select='not(eq(mod(n,5),3))'", '-fps_mode', 'vfr'];
  execFileSync('ffmpeg', ['-y', '-v', 'error', ...source, ...uneven, '-c:v', 'mpeg4', '-q:v', '3', file]);
  return file;
}
const timesOf = (file: string): number[] =>
  execFileSync('ffprobe', [
    '-v',
    'error',
    '-select_streams',
    'v',
    '-show_entries',
    'frame=pts_time',
    '-of',
    'csv=p=0',
    file,
  ])
    .toString()
    .split('\n')
    .flatMap((line) => (line.trim() === '' ? [] : [Number.parseFloat(line)]));

describe('the conversion', () => {
  it('is offered where ffmpeg is', async () => {
    expect(await (await fetch(origin + CONVERT_ABILITY)).json()).toEqual({ ffmpeg: true });
  });

  // Judged from outside: ffprobe.
  it('keeps size, every frame and its time', async () => {
    const film = oddFilm();
    const id = await upload(readFileSync(film));
    expect(await converted(id)).toMatchObject({ state: 'done' });
    const file = path.join(data, 'result.mp4');
    writeFileSync(file, Buffer.from(await (await fetch(origin + convertedPath(id))).arrayBuffer()));
    expect(probe(file)[0]).toMatchObject({ codec_name: 'h264', width: 320, height: 180 });
    const [before, after] = [timesOf(film), timesOf(file)];
    expect(after).toHaveLength(before.length);
    after.forEach((time, i) =>
      expect(Math.abs(time - after[0]! - (before[i]! - before[0]!))).toBeLessThan(0.002),
    );
    await fetch(origin + conversionPath(id), { method: 'DELETE' });
    expect(readdirSync(path.join(data, 'convert'))).toEqual([]);
    expect((await fetch(origin + convertedPath(id))).status).toBe(404);
  });

  it('says why a file cannot be read, and keeps nothing of it', async () => {
    const found = await converted(await upload(Buffer.from('these are words '.repeat(100))));
    expect(found).toMatchObject({ state: 'failed', reason: expect.stringMatching(/\w{4}/) });
    expect(JSON.stringify(found)).not.toContain(data);
  });

  it('knows nothing of files that were never sent, nor of paths', async () => {
    for (const id of ['nothing', '..%2f..%2fetc', 'a.b']) {
      expect((await fetch(origin + conversionPath(id), { method: 'POST' })).status).toBe(404);
      expect((await fetch(origin + conversionPath(id))).status).toBe(404);
    }
  });
});
