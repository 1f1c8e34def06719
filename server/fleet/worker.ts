/** Makes segments of files for a server elsewhere: see {@link HELP}. */
import { mkdirSync, readdirSync, rmSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import path from 'node:path';
import { setInterval } from 'node:timers';
import { parseArgs } from 'node:util';
import { Worker } from 'bullmq';
import { Redis } from 'ioredis';
import { ENCODER_THREADS } from '../render/segment-work';
import { segmentThreads } from '../render/threads';
import { runSegmentJob } from './segment-job';
import { MasterCache } from './master-cache';
import { ensurePrivateFolder } from '../store/private-folder';
import { createOnceLogger } from './say-once';
import { segmentTicketSchema, QUEUE } from './protocol';

const HELP = `Makes segments of files for a Gusset server, which says by Redis what there is to make.

  REDIS_URL=redis://HOST:PORT npm run worker -- [options]

  --parallel N   segments at a time (default: one for every core)
  --folder DIR   for masters and what is made on the way (default: a folder of its own for this machine's workers)

Stops when it is told to (SIGTERM, Ctrl+C), once what it has in hand is made; at the second time at once.`;

/** A worker that says nothing for so long is taken for dead, in milliseconds, and how often that is looked for. */
const DEAD_AFTER = 10_000;
const LOOK_EVERY = 5_000;
/** How often masters that are not used any more are looked for, in milliseconds. */
const SWEEP_EVERY = 10 * 60_000;

const { values } = parseArgs({
  options: {
    parallel: {
      type: 'string',
      default: String(Math.max(1, Math.ceil(availableParallelism() / ENCODER_THREADS))),
    },
    folder: { type: 'string', default: path.join(tmpdir(), `gusset-worker-${process.getuid?.() ?? 0}`) },
    help: { type: 'boolean', default: false },
  },
});
const parallel = Number(values.parallel);
const redis = process.env.REDIS_URL;

function refuse(why: string): never {
  console.error(`${why}\n\n${HELP}`);
  process.exit(2);
}

/** Deletes files of workers that were killed. */
function clearDead(folder: string): void {
  for (const name of readdirSync(folder)) {
    const pid = Number(/^(\d+)$/.exec(name)?.[1]);
    if (Number.isInteger(pid) && !isAlive(pid))
      rmSync(path.join(folder, name), { recursive: true, force: true });
  }
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}

if (values.help) {
  console.log(HELP);
  process.exit(0);
}
if (!redis) refuse('REDIS_URL is not set: it says where Redis is.');
if (!Number.isInteger(parallel) || parallel < 1) refuse('--parallel takes a whole number from 1 on.');

try {
  ensurePrivateFolder(values.folder);
} catch (error) {
  refuse(`${(error as Error).message}: give another folder with --folder.`);
}
clearDead(values.folder);
const own = path.join(values.folder, String(process.pid));
mkdirSync(own, { recursive: true });
const masters = new MasterCache(path.join(values.folder, 'masters'));
void masters.sweep();
setInterval(() => void masters.sweep(), SWEEP_EVERY);
const threads = segmentThreads(parallel);
const connection = new Redis(redis, { maxRetriesPerRequest: null });
const worker = new Worker(
  QUEUE,
  async ({ data }) =>
    runSegmentJob(segmentTicketSchema.parse(data).ticket, { masters, threads, folder: own }),
  {
    ...{ connection, concurrency: parallel, lockDuration: DEAD_AFTER, stalledInterval: LOOK_EVERY },
    // However many workers die over a segment, it is made in the end.
    maxStalledCount: Number.MAX_SAFE_INTEGER,
  },
);
worker.on('ready', () => console.log(`Ready: ${parallel} at a time.`));
worker.on('error', createOnceLogger());
worker.on('failed', (_job, error) => console.error(`A segment was not made: ${error.message}`));

let told = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    const onEnd = () => {
      rmSync(own, { recursive: true, force: true });
      process.exit(0);
    };
    if (told) return onEnd();
    told = true;
    void worker
      .close()
      .then(() => connection.quit())
      .then(onEnd, onEnd);
  });
}
