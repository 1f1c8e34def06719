import path from 'node:path';
import { Worker } from 'node:worker_threads';
import PQueue from 'p-queue';
import { TroubleError } from '../../src/core/trouble/trouble';
import type { RenderOrder } from './order';
import type { SegmentTask } from './segment';
import type { Answer, Asked } from './segment-thread';

/** A thread knows nothing of TypeScript before it is told. */
const THREAD = `require('tsx/cjs'); require(${JSON.stringify(path.join(__dirname, 'segment-thread.ts'))});`;
/** A thread that was told to stop gets this long, in milliseconds. */
const GRACE = 3000;

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
  make(task: SegmentTask, onFrame: (done: number) => void, signal: AbortSignal): Promise<number> {
    return this.queue.add(() => this.run(task, onFrame, signal), { throwOnTimeout: true });
  }

  private run(task: SegmentTask, onFrame: (done: number) => void, signal: AbortSignal): Promise<number> {
    return new Promise((resolve, reject) => {
      if (signal.aborted) return reject(new TroubleError('cancelled'));
      const thread = new Worker(THREAD, { eval: true, workerData: this.order });
      const ask = (asked: Asked) => thread.postMessage(asked);
      let grace: ReturnType<typeof setTimeout> | undefined;
      const stop = () => {
        ask({ type: 'stop' });
        grace = setTimeout(() => end(() => reject(new TroubleError('cancelled'))), GRACE);
      };
      const end = (settle: () => void) => {
        clearTimeout(grace);
        signal.removeEventListener('abort', stop);
        void thread.terminate();
        settle();
      };
      const failed = (reason: string) =>
        end(() => reject(signal.aborted ? new TroubleError('cancelled') : new Error(reason)));
      thread.on('message', (answer: Answer) => {
        if (answer.type === 'frame') onFrame(answer.done);
        else if (answer.type === 'made') end(() => resolve(answer.bytes));
        else failed(answer.reason);
      });
      thread.on('error', (error) => failed(error instanceof Error ? error.message : String(error)));
      thread.on('exit', () => failed('the thread ended'));
      signal.addEventListener('abort', stop);
      ask({ type: 'make', task });
    });
  }
}
