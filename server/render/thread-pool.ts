import { Worker } from 'node:worker_threads';
import PQueue from 'p-queue';
import { TroubleError } from '../../src/core/trouble/trouble';
import { toError, type Failure, toFailure } from './failure';
import type { ThreadAnswer } from './serve-thread';

/** A thread that was told to stop gets this long, in milliseconds. */
const GRACE = 3000;

/** Threads that do work of one kind, several at a time; each is started once and used again. Whoever opens it closes it. */
export class ThreadPool<Data, Progress, Result> {
  private readonly queue: PQueue;
  private readonly idle: Worker[] = [];
  private closed = false;

  /** @param file the module that serves them. @param atOnce how many run side by side. */
  constructor(
    private readonly file: string,
    atOnce: number,
  ) {
    this.queue = new PQueue({ concurrency: atOnce });
  }

  /** @throws TroubleError `cancelled`, and what went wrong in the thread. */
  run(data: Data, report: (progress: Progress) => void, signal: AbortSignal): Promise<Result> {
    return this.queue.add(() => this.inThread(data, report, signal), { throwOnTimeout: true });
  }

  close(): void {
    this.closed = true;
    for (const thread of this.idle.splice(0)) void thread.terminate();
  }

  private inThread(data: Data, report: (progress: Progress) => void, signal: AbortSignal): Promise<Result> {
    return new Promise((resolve, reject) => {
      if (signal.aborted) return reject(new TroubleError('cancelled'));
      const thread = this.idle.pop() ?? this.started();
      let grace: ReturnType<typeof setTimeout> | undefined;
      const stop = () => {
        thread.postMessage({ type: 'stop' });
        grace = setTimeout(() => fail(toFailure('the thread did not stop')), GRACE);
      };
      const end = (isGood: boolean, settle: () => void) => {
        clearTimeout(grace);
        signal.removeEventListener('abort', stop);
        // Each by itself: a thread from which all are taken away at once is deaf from then on.
        thread.off('message', hear).off('error', onError).off('exit', onEnd);
        if (isGood && !this.closed) this.idle.push(thread);
        else void thread.terminate();
        settle();
      };
      const fail = (failure: Failure) =>
        end(false, () => reject(signal.aborted ? new TroubleError('cancelled') : toError(failure)));
      const hear = (answer: ThreadAnswer<Progress, Result>): void => {
        if (answer.type === 'progress') report(answer.progress);
        else if (answer.type === 'done') end(true, () => resolve(answer.result));
        else fail(answer.failure);
      };
      const onError = (error: Error) => fail(toFailure(error));
      const onEnd = () => fail(toFailure('the thread ended'));
      thread.on('message', hear).on('error', onError).on('exit', onEnd);
      signal.addEventListener('abort', stop);
      thread.postMessage({ type: 'work', data });
    });
  }

  private started(): Worker {
    // A bundle needs none of the loaders that whoever runs this may have.
    return new Worker(this.file, { execArgv: [] });
  }
}
