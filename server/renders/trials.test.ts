import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { toJobEncodeSettings, planOfJob } from '../../src/core/check/check';
import type { Job } from '../../src/core/job/job';
import { masterPath, RENDER_UPLOADS, renderMark } from '../../src/core/job/render-service';
import { trialPath, trialPicturePath, TRIALS, type TrialState } from '../../src/core/trial/trial-service';
import { SHIPPED_SHEETS } from '../../src/core/outlets/shipped';
import { probe } from '../../tests/make-clip';
import { filmed } from '../../tests/make-filmed';
import { smallJob } from '../../tests/small-order';
import { Client, openTestServer, type TestServer } from '../test-client';

const film = filmed('tried', 'null', { from: 0, seconds: 3 });
const sheets = [...SHIPPED_SHEETS];
let server: TestServer;
let client: Client;
let job: Job;

beforeAll(async () => {
  job = await smallJob(film, {}, { width: 360, height: 640 });
});
beforeEach(async () => {
  server = await openTestServer();
  client = new Client(server.origin);
});
afterEach(() => server.close());

const send = (address: string, body: unknown, method = 'POST') =>
  client.fetch(address, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });

async function sendMaster(): Promise<void> {
  const upload = await client.upload(RENDER_UPLOADS, new Uint8Array(readFileSync(film)), 2);
  expect((await send(masterPath(job.masters[0]!.fingerprint), { upload }, 'PUT')).status).toBe(204);
}

/** A request for a trial of the film's first two seconds. */
function asked(master = job.masters[0]!.id): object {
  const { exports: _exports, posts: _posts, ...rest } = job;
  const piece = { role: 'hardest', range: { master, in: 0, out: 48 }, weight: 1 };
  return {
    ...{ job: rest, clip: 'clip-1', canvas: 'canvas-1', sheets },
    mark: renderMark(planOfJob(job, sheets), toJobEncodeSettings(job, { sheets })),
    trial: {
      pieces: [piece],
      rates: [300_000, 1_000_000, 4_000_000],
      rung: { width: 360, height: 640, bits: 4_000_000 },
    },
  };
}

const stateOf = async (id: string): Promise<TrialState> =>
  (await (await client.fetch(trialPath(id))).json()) as TrialState;

async function ended(id: string): Promise<TrialState> {
  for (;;) {
    const now = await stateOf(id);
    if (now.state === 'done' || now.state === 'failed') return now;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}

async function begun(): Promise<string> {
  const response = await send(TRIALS, asked());
  expect(response.status).toBe(202);
  return ((await response.json()) as { id: string }).id;
}

describe('a trial of bit rates on the server', () => {
  it('says what a viewer would get of each, and shows the worst frames', async () => {
    await sendMaster();
    const id = await begun();
    const state = await ended(id);
    if (state.state !== 'done') throw new Error(state.state);
    const { points, compressor } = state.result;
    expect(compressor).toBe('ffmpeg');
    for (const { bits, came, moving, worst, ssim } of points) {
      expect(Math.max(came / bits, bits / came)).toBeLessThan(1.3);
      expect(moving).not.toBeNull();
      expect(worst.ssim).toBeLessThanOrEqual(ssim);
    }
    expect(points[2]!.ssim - points[0]!.ssim).toBeGreaterThan(0.005);
    const pictures = await Promise.all(
      ['planned', 'viewed'].map(async (kind) => {
        const file = path.join(server.data, `${kind}.png`);
        const response = await client.fetch(trialPicturePath(id, '0', kind));
        writeFileSync(file, Buffer.from(await response.arrayBuffer()));
        expect(probe(file)[0]).toMatchObject({ codec_name: 'png', width: 360, height: 640 });
        return file;
      }),
    );
    // What is shown is what was measured: ffmpeg finds the same likeness in the pictures, but for their rounding to RGB.
    expect(Math.abs(ssimOf(pictures) - points[0]!.worst.ssim)).toBeLessThan(0.01);
    await client.fetch(trialPath(id), { method: 'DELETE' });
    expect((await client.fetch(trialPath(id))).status).toBe(404);
    expect(readdirSync(path.join(server.data, 'trials'))).toEqual([]);
  });

  it('is nobody else’s, is stopped, and leaves nothing', async () => {
    await sendMaster();
    const id = await begun();
    expect((await new Client(server.origin).fetch(trialPath(id))).status).toBe(404);
    expect((await client.fetch(trialPicturePath(id, '0', 'planned'))).status).toBe(404);
    await client.fetch(trialPath(id), { method: 'DELETE' });
    expect(existsSync(path.join(server.data, 'trials', id))).toBe(false);
  });

  it('is refused without its master, of a master that the job has not, and where it cannot be read', async () => {
    expect((await send(TRIALS, asked())).status).toBe(409);
    await sendMaster();
    expect((await send(TRIALS, asked('master-9'))).status).toBe(422);
    expect((await send(TRIALS, { ...asked(), trial: { pieces: [] } })).status).toBe(422);
  });
});

/** Likeness of two pictures' luma, by ffmpeg. */
function ssimOf(files: readonly string[]): number {
  const inputs = files.flatMap((file) => ['-i', file]);
  const graph = '[0]format=yuv444p[a];[1]format=yuv444p[b];[a][b]ssim';
  const args = ['-hide_banner', '-cpuflags', '0', ...inputs, '-lavfi', graph, '-f', 'null', '-'];
  const said = execFileSync('bash', ['-c', 'ffmpeg "$@" 2>&1', 'bash', ...args]).toString();
  return Number(/SSIM Y:([\d.]+)/.exec(said)?.[1]);
}
