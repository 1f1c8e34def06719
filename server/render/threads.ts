import type { TrialResult } from '../../src/core/trial/rate-trial';
import { builtProgram } from '../root';
import type { RenderOrder } from './order';
import type { TrialProgress } from './rate-trial';
import type { SegmentTask } from './segment';
import type { SegmentThreadData } from './segment-thread';
import { ThreadPool } from './thread-pool';
import type { RateTrialJob } from './trial-pieces';

/** Threads that make segments. */
export const segmentThreads = (atOnce: number): SegmentThreads =>
  new ThreadPool(builtProgram('segment-thread'), atOnce);
export type SegmentThreads = ThreadPool<SegmentThreadData, number, { bytes: number }>;

/** The thread that tries bit rates. */
export const trialThreads = (): ThreadPool<RateTrialJob, TrialProgress, TrialResult> =>
  new ThreadPool(builtProgram('rate-trial-thread'), 1);

/** Makes segments of one order, several at a time, in threads of this machine. Whoever opens it closes it. */
export class Threads {
  private readonly pool: SegmentThreads;

  /** @param atOnce how many run side by side. */
  constructor(
    private readonly order: RenderOrder,
    atOnce: number,
  ) {
    this.pool = segmentThreads(atOnce);
  }

  /** @throws TroubleError `cancelled`, and what went wrong in the thread. */
  async make(task: SegmentTask, onFrame: (done: number) => void, signal: AbortSignal): Promise<number> {
    return (await this.pool.run({ order: this.order, task }, onFrame, signal)).bytes;
  }

  close(): void {
    this.pool.close();
  }
}
