import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { activeClip, type Job } from '../../src/core/job/job';
import { testPass } from '../../src/core/job/test-pass';
import { SHIPPED_SHEETS } from '../../src/core/outlets/shipped';
import { adviseBitrate } from '../../src/core/trial/advice';
import { trialOrder, type TrialPoint, trialPlans } from '../../src/core/trial/rate-trial';
import { type HardFilm, hardFilm } from '../../tests/hard-films';
import { packetsOf } from '../../tests/make-clip';
import { orderOfJob, smallJob } from '../../tests/small-order';
import { drawn, soakFigure, trials } from '../../tests/soak';
import { drawSegment } from './draw';
import { rawInput } from './encoder-args';
import { FrameFile } from './frame-file';
import type { RenderOrder } from './order';
import { runRateTrial } from './rate-trial';

const folder = mkdtempSync(path.join(tmpdir(), 'advice-'));
const SECONDS = trials(2, 8);
const FILMS: HardFilm[] = ['grainy', 'coarse', 'dark', 'flickering', 'shaking', 'fast and fine'];
/** Where a film gains so little with each rate that it is not sharp where that ends: steps that may be between. */
const WIDER: Partial<Record<HardFilm, number>> = { flickering: 2.5 };
const SIZE = { width: 360, height: 640 };
/** Rendition of so small a canvas, and the rates of a trial for it. */
const RUNG = { ...SIZE, bits: 500_000 };
const RATES = [250_000, 500_000, 750_000, 1_120_000, 1_670_000, 2_500_000];
const SPAN = RATES[5]! / RATES[0]!;
/** Factor between two of twelve rates. */
const STEP = SPAN ** (1 / 11);
/** So many are tried in full: in `npm test` fewer. */
const FULL = trials(4, 12);

const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-y', '-v', 'error', ...args]);
const file = (name: string) => path.join(folder, name);

/** Every frame of an order, as its encoder gets them. */
async function rawOf(order: RenderOrder): Promise<string> {
  const raw = await FrameFile.create(file('whole.raw'));
  const all = { start: 0, frames: order.plan.frames };
  await drawSegment(order, all, (frame, number) => raw.write(frame, number), new AbortController().signal);
  await raw.close();
  return file('whole.raw');
}

/**
 * Measures what a viewer gets of a whole clip at a rate, by ffmpeg alone: two passes, the outlet's
 * compression, and its own filter `ssim`.
 */
function inFull({ plan }: RenderOrder, raw: string, bits: number): TrialPoint {
  const [sent, viewed] = [file('sent.mp4'), file('viewed.mp4')];
  const input = rawInput(plan, raw);
  const codec = ['-c:v', 'libx264', '-preset', 'medium', '-g', '48', '-b:v', String(Math.round(bits))];
  const log = (pass: string) => ['-pass', pass, '-passlogfile', file('full')];
  ffmpeg(...input, ...codec, ...log('1'), '-f', 'null', '-');
  ffmpeg(...input, ...codec, ...log('2'), sent);
  const kept = [RUNG.bits, 1.5 * RUNG.bits, 3 * RUNG.bits].map(String) as [string, string, string];
  const rates = ['-b:v', kept[0], '-maxrate', kept[1], '-bufsize', kept[2]];
  ffmpeg('-i', sent, '-c:v', 'libx264', '-preset', 'veryfast', '-g', '48', ...rates, viewed);
  // Its assembly for this filter rounds otherwise.
  const compared = [
    '-hide_banner',
    '-cpuflags',
    '0',
    ...input,
    '-i',
    viewed,
    '-lavfi',
    'ssim',
    '-f',
    'null',
    '-',
  ];
  const said = execFileSync('bash', ['-c', 'ffmpeg "$@" 2>&1', 'bash', ...compared]).toString();
  const ssim = Number(/SSIM Y:([\d.]+)/.exec(said)?.[1]);
  const came = (packetsOf(sent).reduce((sum, { bytes }) => sum + bytes, 0) * 8) / SECONDS;
  return { bits, came, ssim, psnr: 0, moving: null, banding: 0, worst: { role: 'hardest', frame: 0, ssim } };
}

/** Video bits of each second of a film, as the look at a master finds them. */
function bitsBySecond(film: string): number[] {
  const bits: number[] = [];
  for (const { time, bytes } of packetsOf(film)) {
    const second = Math.max(0, Math.floor(time));
    bits[second] = (bits[second] ?? 0) + bytes * 8;
  }
  return bits;
}

/** A job whose one canvas is for an outlet. */
function forOutlet(job: Job): Job {
  const [clip] = job.edit.clips;
  const canvases = clip!.canvases.map((canvas) => ({ ...canvas, placement: 'verrow/short' }));
  return { ...job, edit: { ...job.edit, clips: [{ ...clip!, canvases }] } };
}

/** Runs a trial of pieces on a film. */
async function tried(job: Job, order: RenderOrder, film: string): Promise<TrialPoint[]> {
  const pass = { ...testPass(), bitsBySecond: bitsBySecond(film) };
  const found = trialOrder(forOutlet(job), { sheets: SHIPPED_SHEETS, passOf: () => pass })!;
  const trial = { ...found, rates: RATES, rung: RUNG };
  const plans = trialPlans(job, SHIPPED_SHEETS, trial);
  const asked = { order: trial, plans, making: order.making, masters: order.masters, folder };
  return (await runRateTrial(asked, () => undefined, new AbortController().signal)).points;
}

describe('the rate that a trial of pieces advises', () => {
  it('is about a step at most from the best of twelve that were tried in full', async () => {
    const films = drawn(FILMS, 1);
    const off: number[] = [];
    for (const name of films) {
      const film = hardFilm(name, SECONDS);
      const job = await smallJob(film, { maker: 'server' }, SIZE);
      expect(activeClip(job.edit).cut).toHaveLength(1);
      const order = orderOfJob(job, film);
      const advised = adviseBitrate({ points: await tried(job, order, film), rung: RUNG }).knee;
      const raw = await rawOf(order);
      const full = Array.from({ length: FULL }, (_, n) =>
        inFull(order, raw, RATES[0]! * SPAN ** (n / (FULL - 1))),
      );
      const best = adviseBitrate({ points: full, rung: RUNG }).knee;
      off.push(Math.log(advised / best) / Math.log(STEP));
    }
    soakFigure(
      'advice beside twelve rates in full',
      `${films.map((name, n) => `${name} ${off[n]!.toFixed(2)}`).join(', ')} steps off`,
    );
    films.forEach((name, n) => expect([name, Math.abs(off[n]!) <= (WIDER[name] ?? 1)]).toEqual([name, true]));
  }, 3_600_000);
});
