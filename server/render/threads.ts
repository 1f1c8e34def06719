import path from 'node:path';
import PQueue from 'p-queue';
import { inThread } from './in-thread';
import type { RenderOrder } from './order';
import type { SegmentTask } from './segment';
import type { SegmentJob } from './segment-thread';

const THREAD = path.join(__dirname, 'segment-thread.ts');

/** Makes segments of one order, several at a time, each in a thread of its own. */
export class Threads {
  private readonly queue: PQueue;

  /** @param atOnce how many run side by side. */
  constructor(
    private readonly order: RenderOrder,
    atOnce: number,
  ) {
    this.queue = new PQueue({ concurrency: atOnce });
  }

  /** @throws TroubleError `cancelled`, and what went wrong in the thread. */
  async make(task: SegmentTask, onFrame: (done: number) => void, signal: AbortSignal): Promise<number> {
    const job: SegmentJob = { order: this.order, task };
    const run = () => inThread<SegmentJob, number, { bytes: number }>(THREAD, job, onFrame, signal);
    return (await this.queue.add(run, { throwOnTimeout: true })).bytes;
  }
}
