import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { makeClip, packetsOf } from '../../tests/make-clip';
import { smallOrder } from '../../tests/small-order';
import { SEED, seeded, soakFigure, trials } from '../../tests/soak';
import { TestRedis, TestWorker } from '../../tests/test-redis';
import { renderFile } from '../render/render';
import { Fleet, UnreachableError } from './fleet';

const KILLS = trials(1, 20);
/** When a worker is killed after it began, at the latest, in milliseconds. */
const LATEST = 3000;
const SECONDS = trials(4, 24);
const film = makeClip('shared-out.mp4', { size: '640x360', seconds: SECONDS });
const folder = mkdtempSync(path.join(tmpdir(), 'fleet-'));

let redis: TestRedis;
let fleet: Fleet;
beforeAll(async () => {
  redis = await TestRedis.start();
  fleet = await Fleet.open(redis.url, 'http://127.0.0.1:0');
});
afterAll(async () => {
  await fleet.close();
  await redis.stop();
});

let count = 0;
async function rendered(signal = new AbortController().signal): Promise<string> {
  const order = await smallOrder(film, { rate: { kind: 'variable', bits: 1_000_000, most: null } });
  const to = path.join(folder, `${count++}.mp4`);
  await renderFile(order, {
    folder: `${to}.parts`,
    to,
    maker: (own) => fleet.createMaker(order, own),
    signal,
  });
  expect(existsSync(`${to}.parts`)).toBe(false);
  return to;
}

/** Hashes of every frame of a file, by ffmpeg. */
const framesOf = (file: string): string =>
  execFileSync('ffmpeg', ['-v', 'error', '-i', file, '-map', '0:v', '-f', 'framemd5', '-']).toString();

describe('workers on other machines', () => {
  it('make the same file, each clip once, whichever of them dies over it', async () => {
    const alone = await new TestWorker(redis.url).start();
    const whole = await rendered();
    await alone.stop();
    expect(packetsOf(whole)).toHaveLength(24 * SECONDS);
    const wanted = framesOf(whole);

    const workers = await Promise.all([1, 2, 3].map(() => new TestWorker(redis.url).start()));
    const next = seeded(SEED);
    let kills = 0;
    let files = 0;
    let ended = false;
    const killing = (async () => {
      while (kills < KILLS && !ended) {
        await new Promise((resolve) => setTimeout(resolve, next() * LATEST));
        const worker = workers[Math.floor(next() * workers.length)]!;
        await worker.stop('SIGKILL');
        kills += 1;
        await worker.start();
      }
    })();
    try {
      while (kills < KILLS) {
        expect(framesOf(await rendered())).toBe(wanted);
        files += 1;
      }
    } finally {
      ended = true;
      await killing;
      await Promise.all(workers.map((worker) => worker.stop()));
    }
    // Every file is there once, and nothing else.
    expect(readdirSync(folder)).toHaveLength(files + 1);
    soakFigure('workers killed', `${kills} kills of three workers over ${files} files: each the same, once`);
  }, 600_000);

  it('let go of what nobody waits for any longer', async () => {
    const worker = await new TestWorker(redis.url).start();
    const stop = new AbortController();
    setTimeout(() => stop.abort(), 1500);
    await expect(rendered(stop.signal)).rejects.toThrow('cancelled');
    // The worker is free again: the next file is made.
    expect(packetsOf(await rendered())).toHaveLength(24 * SECONDS);
    await worker.stop();
  }, 120_000);

  it('go on after a Redis that lost all that was in it, and stop while there is none', async () => {
    const own = await TestRedis.start();
    const ours = await Fleet.open(own.url, 'http://127.0.0.1:0');
    const worker = await new TestWorker(own.url).start();
    const order = await smallOrder(film, { rate: { kind: 'variable', bits: 1_000_000, most: null } });
    const make = (name: string, signal = new AbortController().signal) => {
      const to = path.join(folder, name);
      return renderFile(order, {
        folder: `${to}.parts`,
        to,
        maker: (own) => ours.createMaker(order, own),
        signal,
      });
    };
    const going = make('after.mp4');
    await new Promise((resolve) => setTimeout(resolve, 1000));
    await own.restart();
    await going;
    expect(packetsOf(path.join(folder, 'after.mp4'))).toHaveLength(24 * SECONDS);

    await own.stop();
    const stop = new AbortController();
    const stopped = make('never.mp4', stop.signal);
    setTimeout(() => stop.abort(), 500);
    await expect(stopped).rejects.toThrow('cancelled');
    await worker.stop('SIGKILL');
    await ours.close();
  }, 120_000);

  it('are done without: the server makes what the last of them left, and all where there is none', async () => {
    const wanted = framesOf(await rendered());
    const worker = await new TestWorker(redis.url).start();
    const going = rendered();
    await new Promise((resolve) => setTimeout(resolve, 1000));
    await worker.stop('SIGKILL');
    expect(framesOf(await going)).toBe(wanted);
  }, 120_000);

  it('tell what cannot be made', async () => {
    const worker = await new TestWorker(redis.url).start();
    const order = await smallOrder(film, { rate: { kind: 'variable', bits: 1_000_000, most: null } });
    const broken = path.join(folder, 'broken.parts');
    const masters = Object.fromEntries(Object.keys(order.masters).map((name) => [name, __filename]));
    const making = renderFile(order, {
      ...{ folder: broken, to: path.join(folder, 'broken.mp4') },
      // Another file than its fingerprint says.
      maker: (own) => fleet.createMaker({ ...order, masters }, own),
      signal: new AbortController().signal,
    });
    await expect(making).rejects.toThrow('another file than was said');
    await worker.stop();
  }, 120_000);

  it('are not waited for where Redis is not there', async () => {
    await expect(Fleet.open('redis://127.0.0.1:1', 'http://127.0.0.1:0')).rejects.toThrow(UnreachableError);
  });
});
