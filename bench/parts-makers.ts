/** Files without a browser, beside ffmpeg by hand, and trials beside the exports that they are for. */
import path from 'node:path';
import { activeClip, type Job } from '../src/core/job/job';
import { trialPlans } from '../src/core/trial/rate-trial';
import { toJobEncodeSettings, planOfJob } from '../src/core/check/check';
import { SHIPPED_SHEETS } from '../src/core/outlets/shipped';
import type { RenderOrder } from '../server/render/order';
import { renderFile } from '../server/render/render';
import { Threads, trialThreads } from '../server/render/threads';
import { jobOf } from '../tests/create-job';
import { ffmpegSeconds, grainyMaster, work } from './material';
import { processorSeconds } from './processor';
import type { Report } from './report';

const SECONDS = 12;
/** The best of so many, in turn: other work on the machine only adds. */
const RUNS = 3;
/** A trial takes as long for any clip: it is held against one of so many seconds. */
const TRIED_SECONDS = 180;
const BITS = 8_000_000;
const forEver = () => new AbortController().signal;

async function measureMs(act: () => Promise<unknown>): Promise<number> {
  const began = performance.now();
  await act();
  return (performance.now() - began) / 1000;
}

async function processor(act: () => Promise<unknown>): Promise<number> {
  const before = processorSeconds(process.pid);
  await act();
  return processorSeconds(process.pid) - before;
}

/** A grainy film to be made tall, in two passes. */
async function grainyOrder(): Promise<{ job: Job; order: RenderOrder }> {
  const film = grainyMaster('made.mp4', SECONDS, 60);
  const job = await jobOf(film);
  const sheets = SHIPPED_SHEETS;
  const plan = planOfJob(job, sheets);
  const made = toJobEncodeSettings(job, { sheets });
  const picture = made.picture && {
    ...made.picture,
    kind: 'variable' as const,
    bits: BITS,
    mostBits: 2 * BITS,
  };
  const masters = { [job.masters[0]?.fingerprint ?? '']: film };
  return { job, order: { plan, making: { ...made, picture }, masters } };
}

export async function makers(report: Report): Promise<void> {
  const { job, order } = await grainyOrder();
  const { plan, masters } = order;
  const [film = ''] = Object.values(masters);
  const to = path.join(work, 'made.out.mp4');
  const { width, height } = plan;
  const crop = `crop=ih*${width}/${height}:ih,scale=${width}:${height}:flags=lanczos`;
  const byHand = () =>
    ['1', '2'].reduce((sum, pass) => {
      const log = ['-pass', pass, '-passlogfile', path.join(work, 'hand')];
      const out = pass === '1' ? ['-an', '-f', 'null', '-'] : [path.join(work, 'hand.mp4')];
      const codec = ['-c:v', 'libx264', '-preset', 'medium', '-b:v', String(BITS), ...log];
      return sum + ffmpegSeconds(['-i', film, '-vf', crop, ...codec, ...out], 1);
    }, 0);
  const [ourTimes, theirTimes] = [[] as number[], [] as number[]];
  for (let run = 0; run < RUNS; run++) {
    ourTimes.push(await measureMs(() => renderFile(order, { folder: `${to}.parts`, to, signal: forEver() })));
    theirTimes.push(byHand());
  }
  const [ours, theirs] = [Math.min(...ourTimes), Math.min(...theirTimes)];
  report.line('Server, two passes, against ffmpeg by hand', ours, 's', theirs, ours / theirs, '1');

  const pieces = [0, 1, 2].map((n) => ({
    role: (['hardest', 'typical', 'easiest'] as const)[n] as 'hardest',
    range: { master: activeClip(job.edit).cut[0]?.master ?? '', in: n * 100, out: n * 100 + 60 },
    weight: 1 / 3,
  }));
  const trial = {
    pieces,
    rates: [3, 6, 9, 13.4, 20, 30].map((rate) => rate * 1e6),
    rung: { width, height, bits: 6e6 },
  };
  const asked = { order: trial, plans: trialPlans(job, [...SHIPPED_SHEETS], trial), folder: work };
  const threads = trialThreads();
  const tried = await measureMs(() =>
    threads.run({ ...asked, making: order.making, masters }, () => undefined, forEver()),
  );
  threads.close();
  const forThree = (ours * TRIED_SECONDS) / SECONDS;
  report.line(
    'Trial of rates against an export of three minutes',
    tried,
    's',
    forThree,
    tried / forThree,
    '0.35',
  );
}

/** A clip in two closed segments against one piece, in processor seconds: segments are made side by side. */
export async function segments(report: Report): Promise<void> {
  const { order } = await grainyOrder();
  const { plan } = order;
  const one = new Threads(order, 1);
  const task = { file: path.join(work, 'whole.mkv'), bits: BITS, held: true, keepsFrames: false, threads: 1 };
  const whole = { start: 0, frames: plan.frames };
  const half = Math.round(plan.frames / 2 / 60) * 60;
  const halves = [
    { start: 0, frames: half },
    { start: half, frames: plan.frames - half },
  ];
  const make = (segment: typeof whole) =>
    one.make({ ...task, segment, pass: null }, () => undefined, forEver());
  // The thread is there already.
  await make({ start: 0, frames: 30 });
  const inOne = await processor(() => make(whole));
  const inTwo = await processor(async () => {
    for (const segment of halves) await make(segment);
  });
  one.close();
  report.line('Segments against one piece, processor seconds', inTwo, 's', inOne, inTwo / inOne, '1.05');
}
