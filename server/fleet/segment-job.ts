import { createReadStream, createWriteStream } from 'node:fs';
import { mkdtemp, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { UnrecoverableError } from 'bullmq';
import { parseFingerprint } from '../../src/core/master/fingerprint';
import { toFailure } from '../render/failure';
import { passFiles, type SegmentTask } from '../render/segment';
import type { SegmentThreadData } from '../render/segment-thread';
import type { SegmentThreads } from '../render/threads';
import { VERSION } from '../render/version';
import { fetchStream } from './fetch-file';
import type { MasterCache } from './master-cache';
import { type SegmentJob, type SegmentJobFile, segmentJobSchema } from './protocol';

/** How often it is told how far the work is, in milliseconds. */
const TELL_EVERY = 1000;

/** Tools of a worker. */
interface Workbench {
  masters: MasterCache;
  threads: SegmentThreads;
  /** For what is made on the way. */
  folder: string;
}

/**
 * Makes the segment of a ticket: fetches what it needs, makes it in a thread, and brings it back. One that nobody waits
 * for any longer is let go.
 * @throws Error where the way to the server broke, and UnrecoverableError where the segment cannot be made anywhere.
 */
export async function runSegmentJob(ticket: string, { masters, threads, folder }: Workbench): Promise<void> {
  const errand = await fetchErrand(ticket);
  if (!errand) return;
  if (errand.version !== VERSION) throw new Error('this worker is of another version than the server');
  const own = await mkdtemp(path.join(folder, 'segment-'));
  const heard = new Heartbeat(ticket);
  try {
    const task: SegmentTask = { ...errand.task, file: path.join(own, 'segment.mkv') };
    const files: Record<SegmentJobFile, string> = { segment: task.file, ...passFiles(task.file) };
    const sources: Record<string, string> = {};
    for (const [fingerprint, address] of Object.entries(errand.masters))
      sources[fingerprint] = await masters.get(parseFingerprint(fingerprint), address);
    for (const [name, address] of Object.entries(errand.kept))
      await fetchFile(address, files[name as SegmentJobFile]);
    const job: SegmentThreadData = {
      order: { plan: errand.plan, making: errand.making, masters: sources },
      task,
    };
    await threads
      .run(job, (frames) => (heard.frames = frames), heard.signal)
      .catch((error: unknown) => {
        if (heard.signal.aborted) return;
        throw new UnrecoverableError(JSON.stringify(toFailure(error)));
      });
    if (heard.signal.aborted) return;
    // The addresses of before may have run out.
    const now = await fetchErrand(ticket);
    for (const [name, address] of Object.entries(now?.made ?? {}))
      await bringFile(files[name as SegmentJobFile], address);
  } finally {
    heard.stop();
    await rm(own, { recursive: true, force: true });
  }
}

/** Tells how far the work is, and learns whether it is still wanted. */
class Heartbeat {
  frames = 0;
  private readonly unwanted = new AbortController();
  private readonly clock: ReturnType<typeof setInterval>;

  constructor(private readonly ticket: string) {
    this.clock = setInterval(() => void this.tell(), TELL_EVERY);
  }

  get signal(): AbortSignal {
    return this.unwanted.signal;
  }

  stop(): void {
    clearInterval(this.clock);
  }

  private async tell(): Promise<void> {
    const body = JSON.stringify({ frames: this.frames });
    const headers = { 'content-type': 'application/json' };
    // A server that does not answer now may answer later.
    const answer = await fetch(this.ticket, { method: 'POST', headers, body }).catch(() => null);
    if (answer?.status === 404) this.unwanted.abort();
  }
}

/** Null where nobody waits any longer. */
async function fetchErrand(ticket: string): Promise<SegmentJob | null> {
  const response = await fetch(ticket);
  if (response.status === 404) return null;
  if (!response.ok) throw new Error(`the errand was refused with ${response.status}`);
  return segmentJobSchema.parse(await response.json());
}

async function fetchFile(address: string, to: string): Promise<void> {
  await pipeline(await fetchStream(address), createWriteStream(to));
}

async function bringFile(file: string, address: string): Promise<void> {
  // Not every pass leaves every file.
  const size = await stat(file).then(
    (found) => found.size,
    () => null,
  );
  if (size === null) return;
  const body = Readable.toWeb(createReadStream(file)) as ReadableStream;
  const headers = { 'content-length': String(size) };
  const init = { method: 'PUT', headers, body, duplex: 'half' } as RequestInit;
  const response = await fetch(address, init);
  if (!response.ok && response.status !== 404) throw new Error(`a file was refused with ${response.status}`);
}
