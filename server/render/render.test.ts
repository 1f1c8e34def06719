import { spawnSync } from 'node:child_process';
import { copyFileSync, mkdtempSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { writeJobFile } from '../../src/core/interchange/job-file';
import type { Job } from '../../src/core/job/job';
import { type Encoding, PLAIN_ENCODING } from '../../src/core/rate/encoding';
import { similarity } from '../../tests/ssim';
import { makeClip, packetsOf, probe } from '../../tests/make-clip';
import { filmed } from '../../tests/make-filmed';
import { smallJob, smallOrder } from '../../tests/small-order';
import { OWN_FONT, wordedJob } from '../../tests/worded-job';
import { builtProgram } from '../root';
import { drawSegment } from './draw';
import { type RenderOrder, listSegments } from './order';
import { renderFile } from './render';

const SIZE = { width: 180, height: 320 };
const folder = mkdtempSync(path.join(tmpdir(), 'render-'));
/** 16 s, so that it is made in several segments. */
const film = makeClip('long.mp4', { size: '640x360', seconds: 16 });

const orderOf = (change: Partial<Encoding>, file = film) => smallOrder(file, change);

let count = 0;
async function rendered(order: RenderOrder, extension = 'mp4'): Promise<string> {
  const to = path.join(folder, `${count++}.${extension}`);
  await renderFile(order, { folder: `${to}.parts`, to, signal: new AbortController().signal });
  return to;
}

/** Bits a second of a file's picture in each two seconds. */
function bitsByTwoSeconds(file: string): number[] {
  const bits: number[] = [];
  for (const { time, bytes } of packetsOf(file)) {
    const at = Math.floor(time / 2 + 1e-9);
    bits[at] = (bits[at] ?? 0) + (bytes * 8) / 2;
  }
  return bits;
}

/** PSNR that identical frames are given, in decibels. */
const SAME = 99;

/** The least likeness of any frame of a file with what a plan draws, by ffmpeg's `psnr` over luma, in decibels. */
async function worstPsnr(order: RenderOrder, file: string): Promise<number> {
  const raw = path.join(folder, 'drawn.yuv');
  writeFileSync(raw, '');
  const all = { start: 0, frames: order.plan.frames };
  const pieces: Buffer[] = [];
  await drawSegment(
    order,
    all,
    (frame) => Promise.resolve(void pieces.push(Buffer.from(frame))),
    new AbortController().signal,
  );
  writeFileSync(raw, Buffer.concat(pieces));
  const { num, den } = order.plan.rate;
  const drawn = [
    '-f',
    'rawvideo',
    '-pix_fmt',
    'yuv420p',
    '-s',
    `${SIZE.width}x${SIZE.height}`,
    '-r',
    `${num}/${den}`,
  ];
  const graph = '[0:v]setpts=N[a];[1:v]setpts=N[b];[a][b]psnr=stats_file=-';
  const { stdout } = spawnSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-r',
      `${num}/${den}`,
      '-i',
      file,
      ...drawn,
      '-i',
      raw,
      '-lavfi',
      graph,
      '-f',
      'null',
      '-',
    ],
    { maxBuffer: 1 << 26 },
  );
  const found = [...stdout.toString().matchAll(/psnr_y:([\d.]+|inf)/g)].map(([, value]) =>
    Number(value === 'inf' ? SAME : value),
  );
  expect(found).toHaveLength(order.plan.frames);
  return Math.min(...found);
}

describe('a file that is made without a browser', () => {
  it('is whole, joined without a seam, and lands on its rate in two passes', async () => {
    const order = await orderOf({ rate: { kind: 'variable', bits: 1_000_000, most: null } });
    expect(listSegments(order).length).toBeGreaterThan(1);
    const file = await rendered(order);
    const [video, audio] = probe(file);
    expect(video).toMatchObject({
      ...{ codec_name: 'h264', profile: 'High', nb_frames: String(order.plan.frames), has_b_frames: 2 },
      ...{ color_range: 'tv', color_space: 'bt709', ...SIZE },
    });
    expect(audio).toMatchObject({ codec_name: 'aac' });
    expect(Number(audio?.duration)).toBeCloseTo(Number(video?.duration), 2);
    const packets = packetsOf(file);
    const bits = (packets.reduce((sum, { bytes }) => sum + bytes, 0) * 8) / Number(video?.duration);
    expect(Math.abs(bits / 1e6 - 1)).toBeLessThan(0.05);
    // No frame differs from what was drawn, at a seam or elsewhere.
    expect(await worstPsnr(order, file)).toBeGreaterThan(30);
    expect(readdirSync(folder).filter((name) => name.includes('.part'))).toEqual([]);
  }, 120_000);

  it('tells how far it is also while it is made anew to land on its rate', async () => {
    // Too short for an encoder to find a rate by itself.
    const short = filmed('short', 'null', { from: 0, seconds: 1 });
    const order = await orderOf({ rate: { kind: 'variable', bits: 1_000_000, most: null } }, short);
    const told: { done: number; total: number }[] = [];
    const to = path.join(folder, 'short.mp4');
    const signal = new AbortController().signal;
    const onProgress = (progress: (typeof told)[number]) => void told.push(progress);
    await renderFile(order, { folder: `${to}.parts`, to, signal, onProgress });
    const last = told[told.length - 1]!;
    expect(last.done).toBe(last.total);
    // Two passes, and at least one more.
    expect(last.total).toBeGreaterThan(2 * order.plan.frames);
    expect(told.some(({ done, total }) => total === last.total && done < total)).toBe(true);
  }, 120_000);

  it('keeps a variable rate under its most where a film is wild for a moment, and joins that without a seam', async () => {
    // Three wild seconds that would take most of the bits, in one of several segments.
    const wild = "noise=alls=60:allf=t:enable='between(t,12,15)'";
    const burst = makeClip('burst.mp4', { size: '640x360', seconds: 20, filter: wild });
    const [bits, most] = [400_000, 600_000];
    const peaks = async (maxBitrate: number) => {
      const file = await rendered(
        await orderOf({ rate: { kind: 'variable', bits, most: maxBitrate } }, burst),
      );
      const packets = packetsOf(file);
      // No stretch has more than what a decoder's two seconds hold, and what comes in meanwhile.
      return packets.map(({ time: from }) => {
        let sum = 0;
        const later = packets.filter(({ time }) => time >= from);
        return Math.max(
          ...later.map(({ time, bytes }) => (sum += bytes * 8) / (2 * most + most * (time - from))),
        );
      });
    };
    expect(Math.max(...(await peaks(most)))).toBeLessThanOrEqual(1);
    // Where nothing holds it, it is over that.
    expect(Math.max(...(await peaks(8_000_000)))).toBeGreaterThan(1.2);
  }, 120_000);

  it('keeps a constant rate in every two seconds, and a forced level', async () => {
    const order = await orderOf({ rate: { kind: 'constant', bits: 2_000_000 }, level: 42 });
    const file = await rendered(order);
    for (const bits of bitsByTwoSeconds(file).slice(0, -1))
      expect(Math.abs(bits / 2e6 - 1)).toBeLessThanOrEqual(0.05);
    expect(probe(file)[0]).toMatchObject({ level: 42 });
  }, 120_000);

  it('lands on a size, and has the loudness that was asked for', async () => {
    const sound = { ...PLAIN_ENCODING.sound, loudness: -18 };
    const order = await orderOf({ rate: { kind: 'size', bytes: 2_000_000, each: 'file' }, sound });
    const file = await rendered(order);
    expect(Math.abs(statSync(file).size / 2e6 - 1)).toBeLessThanOrEqual(0.03);
    const { stderr } = spawnSync('ffmpeg', ['-i', file, '-af', 'ebur128', '-f', 'null', '-']);
    const integrated = Number(/I:\s+(-?[\d.]+) LUFS/.exec(stderr.toString().split('Summary:')[1] ?? '')?.[1]);
    expect(Math.abs(integrated + 18)).toBeLessThanOrEqual(0.5);
  }, 120_000);

  it('lands on a size also where the sound is silent, and takes next to nothing of it', async () => {
    const silent = makeClip('silent.mp4', { size: '640x360', seconds: 16, output: ['-af', 'volume=0'] });
    const order = await orderOf({ rate: { kind: 'size', bytes: 1_000_000, each: 'file' } }, silent);
    expect(Math.abs(statSync(await rendered(order)).size / 1e6 - 1)).toBeLessThanOrEqual(0.03);
  }, 120_000);

  it.each([
    ['webm-vp9', 'webm', ['vp9', 'opus']],
    ['mp4-av1', 'mp4', ['av1', 'opus']],
    ['mov-avc', 'mov', ['h264', 'aac']],
    ['sound', 'm4a', ['aac']],
  ] as const)(
    'is made as %s',
    async (format, extension, codecs) => {
      const short = makeClip('short.mp4', { size: '320x180', seconds: 2 });
      const file = await rendered(
        await orderOf({ format, rate: { kind: 'quality', quantiser: 30 } }, short),
        extension,
      );
      expect(probe(file).map(({ codec_name }) => codec_name)).toEqual([...codecs]);
    },
    60_000,
  );

  it('has every frame as it was drawn, and its sound whole, where it is lossless', async () => {
    const order = await orderOf({ format: 'lossless' });
    const file = await rendered(order);
    expect(await worstPsnr(order, file)).toBe(SAME);
    const [video, audio] = probe(file);
    expect(video).toMatchObject({ codec_name: 'h264', profile: 'High 4:4:4 Predictive', pix_fmt: 'yuv420p' });
    expect(audio).toMatchObject({ codec_name: 'flac', bits_per_raw_sample: '24' });
    expect(Number(audio?.duration)).toBeCloseTo(Number(video?.duration), 2);
  }, 120_000);

  it('that was stopped goes on from its last whole segment', async () => {
    // Of more segments than are made at once, so that some are whole while others have not begun.
    const longer = makeClip('longer.mp4', { size: '320x180', seconds: 20 * (availableParallelism() + 1) });
    const order = await orderOf({ rate: { kind: 'quality', quantiser: 28 } }, longer);
    expect(listSegments(order).length).toBeGreaterThan(2 * availableParallelism());
    const stop = new AbortController();
    const to = path.join(folder, 'stopped.mp4');
    const parts = `${to}.parts`;
    const whole = () => readdirSync(parts).filter((name) => name.endsWith('.made.mkv'));
    const first = renderFile(order, {
      ...{ folder: parts, to, signal: stop.signal },
      onProgress: () => whole().length > 0 && stop.abort(),
    });
    await expect(first).rejects.toThrow();
    const [kept = ''] = whole();
    const before = statSync(path.join(parts, kept)).mtimeMs;
    let after = 0;
    await renderFile(order, {
      ...{ folder: parts, to, signal: new AbortController().signal },
      onProgress: () => (after = statSync(path.join(parts, kept)).mtimeMs),
    });
    expect(after).toBe(before);
    expect(probe(to)[0]).toMatchObject({ nb_frames: String(order.plan.frames) });
  }, 120_000);
});

describe('npm run render', () => {
  const run = (...args: string[]) => spawnSync(process.execPath, [builtProgram('render'), ...args]);

  it('makes a file of a job and its master, and says in a number what was wrong', async () => {
    const short = makeClip('cli.mp4', { size: '320x180', seconds: 2 });
    const job = path.join(folder, 'job.json');
    writeFileSync(job, writeJobFile(await smallJob(short, { rate: { kind: 'quality', quantiser: 30 } })));
    const out = path.join(folder, 'cli-out.mp4');
    const done = run(job, '--out', out, '--masters', path.dirname(short), '--quiet');
    expect(done.status).toBe(0);
    expect(JSON.parse(done.stdout.toString())).toMatchObject({ file: out, bytes: statSync(out).size });
    expect(run(job).status).toBe(2);
    expect(run(job, '--out', out, '--canvas', 'canvas-9').stderr.toString()).toMatch(/no canvas canvas-9/);
    const missing = run(job, '--out', out, '--masters', mkdtempSync(path.join(tmpdir(), 'empty-')));
    expect([missing.status, missing.stderr.toString()]).toEqual([
      3,
      expect.stringMatching(/cli\.mp4 is not in/),
    ]);
  }, 60_000);

  it('draws words, with a font of the person’s own that lies beside the masters', async () => {
    const beside = mkdtempSync(path.join(tmpdir(), 'beside-'));
    const film = path.join(beside, 'film.mp4');
    copyFileSync(makeClip('worded.mp4', { size: '320x180', seconds: 1 }), film);
    const plain = await smallJob(film, { rate: { kind: 'quality', quantiser: 20 } });
    const made = (job: Job, name: string) => {
      writeFileSync(path.join(beside, 'job.json'), writeJobFile(job));
      const out = path.join(folder, name);
      return { out, ...run(path.join(beside, 'job.json'), '--out', out, '--quiet') };
    };
    const without = made(wordedJob(plain), 'no-font.mp4');
    expect([without.status, without.stderr.toString()]).toEqual([
      3,
      expect.stringMatching(/font of your own/),
    ]);
    copyFileSync(OWN_FONT.file, path.join(beside, 'mine.woff2'));
    const [bare, written] = [made(plain, 'bare.mp4'), made(wordedJob(plain), 'worded.mp4')];
    expect([bare.status, written.status]).toEqual([0, 0]);
    // Two files of the same frames do not differ at all.
    expect(similarity(bare.out, written.out, 'null').worst).toBeLessThan(0.995);
  }, 60_000);
});

describe('segments', () => {
  it('are whole groups that hold every frame once, whatever the length', async () => {
    const { plan, making } = await orderOf({});
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 100_000 }),
        fc.integer({ min: 1, max: 400 }),
        (frames, keyFrames) => {
          const picture = making.picture && { ...making.picture, keyFrames };
          const segments = listSegments({ plan: { ...plan, frames }, making: { ...making, picture } });
          let next = 0;
          for (const { start, frames } of segments) {
            expect([start, start % keyFrames]).toEqual([next, 0]);
            next = start + frames;
          }
          expect(next).toBe(frames);
        },
      ),
    );
  });
});
