import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
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
import { sweep } from '../sweep';
import { Client, openTestServer, type TestServer } from '../test-client';

let server: TestServer;
let client: Client;

beforeAll(async () => {
  server = await openTestServer();
  client = new Client(server.origin);
});
afterAll(() => server.close());

const upload = (file: Buffer) => client.upload(CONVERT_UPLOADS, file);

async function converted(id: string): Promise<Conversion> {
  for (let method = 'POST'; ; method = 'GET') {
    const response = await client.fetch(conversionPath(id), { method });
    const now = conversionSchema.parse(await response.json());
    if (now.state === 'done' || now.state === 'failed') return now;
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
    expect(await (await client.fetch(CONVERT_ABILITY)).json()).toEqual({ ffmpeg: true });
  });

  // Judged from outside: ffprobe.
  it('keeps size, every frame and its time', async () => {
    const film = oddFilm();
    const id = await upload(readFileSync(film));
    expect(await converted(id)).toMatchObject({ state: 'done' });
    const file = path.join(mkdtempSync(path.join(tmpdir(), 'result-')), 'result.mp4');
    writeFileSync(file, Buffer.from(await (await client.fetch(convertedPath(id))).arrayBuffer()));
    expect(probe(file)[0]).toMatchObject({ codec_name: 'h264', width: 320, height: 180 });
    const [before, after] = [timesOf(film), timesOf(file)];
    expect(after).toHaveLength(before.length);
    after.forEach((time, i) =>
      expect(Math.abs(time - after[0]! - (before[i]! - before[0]!))).toBeLessThan(0.002),
    );
    await client.fetch(conversionPath(id), { method: 'DELETE' });
    expect(readdirSync(path.join(server.data, 'convert'))).toEqual([]);
    expect(readdirSync(path.join(server.data, 'converted'))).toEqual([]);
    expect((await client.fetch(convertedPath(id))).status).toBe(404);
  });

  // Judged from outside: ffmpeg's signalstats. Full code 128 is 16 + 128 × 219/255 = 125.9 (ITU-R BT.709-6, 4.6);
  // red of 200, green and blue of 40 is a luma of 16 + 219 × (40 + 160 × 0.2126)/255 = 79.6.
  it.each([
    ['full range', 'gray', 'scale=out_range=full,format=yuv420p', 'libx264', 126],
    ['red, green and blue', '0xC82828', 'format=gbrp', 'libx264rgb', 80],
  ])('brings %s to limited range', async (_, colour, filter, codec, luma) => {
    const folder = mkdtempSync(path.join(tmpdir(), 'range-'));
    const [film, file] = [path.join(folder, 'film.mkv'), path.join(folder, 'result.mp4')];
    const source = ['-f', 'lavfi', '-i', `color=${colour}:s=320x180:r=24:d=1`, '-vf', filter];
    const range = codec === 'libx264' ? ['-color_range', 'pc'] : [];
    execFileSync('ffmpeg', ['-y', '-v', 'error', ...source, '-c:v', codec, ...range, film]);
    const id = await upload(readFileSync(film));
    expect(await converted(id)).toMatchObject({ state: 'done' });
    writeFileSync(file, Buffer.from(await (await client.fetch(convertedPath(id))).arrayBuffer()));
    expect(probe(file)[0]).toMatchObject({ pix_fmt: 'yuv420p' });
    // No word of the range is the limited one (ITU-T H.264, E.2.1).
    expect(probe(file)[0]?.color_range ?? 'tv').toBe('tv');
    const look = ['-frames:v', '1', '-vf', 'signalstats,metadata=print:file=-', '-f', 'null', '-'];
    const out = execFileSync('ffmpeg', ['-v', 'error', '-i', file, ...look]).toString();
    const found = Number(/YAVG=([\d.]+)/.exec(out)?.[1]);
    expect(Math.abs(found - luma)).toBeLessThanOrEqual(1);
    await client.fetch(conversionPath(id), { method: 'DELETE' });
  });

  it('says why a file cannot be read, and keeps nothing of it', async () => {
    const found = await converted(await upload(Buffer.from('these are words '.repeat(100))));
    expect(found).toEqual({ state: 'failed', fault: 'unreadable' });
    expect(readdirSync(path.join(server.data, 'converted'))).toEqual([]);
  });

  it('is swept: uploads that never came to it, and copies that nobody fetched', async () => {
    const uploads = () => readdirSync(path.join(server.data, 'convert'));
    const before = uploads().length;
    await client.create(CONVERT_UPLOADS, 1000);
    await client.upload(CONVERT_UPLOADS, Buffer.from('these are words'));
    const id = await client.upload(CONVERT_UPLOADS, readFileSync(oddFilm()));
    expect(await converted(id)).toMatchObject({ state: 'done' });
    await sweep(server.swept);
    expect(uploads()).toHaveLength(before + 2);
    await sweep(server.swept, Date.now() + 48 * 3600 * 1000);
    expect(uploads()).toEqual([]);
    expect(readdirSync(path.join(server.data, 'converted'))).toEqual([]);
  });

  it('knows nothing of files that were never sent, nor of paths', async () => {
    for (const id of ['nothing', '..%2f..%2fetc', 'a.b']) {
      expect((await client.fetch(conversionPath(id), { method: 'POST' })).status).toBe(404);
      expect((await client.fetch(conversionPath(id))).status).toBe(404);
    }
  });
});
