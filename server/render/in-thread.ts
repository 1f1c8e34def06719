import { Worker } from 'node:worker_threads';
import { TroubleError } from '../../src/core/trouble/trouble';
import { errorOf, type Failure, failureOf } from './failure';
import type { ThreadAnswer } from './serve-thread';

/** A thread that was told to stop gets this long, in milliseconds. */
const GRACE = 3000;

/**
 * Does work in a thread of its own.
 * @param file the module that serves it. @param report is told how far it is.
 * @throws TroubleError `cancelled`, and Error with what went wrong in the thread.
 */
export function inThread<Data, Progress, Result>(
  file: string,
  data: Data,
  report: (progress: Progress) => void,
  signal: AbortSignal,
): Promise<Result> {
  // A thread knows nothing of TypeScript before it is told.
  const code = `require('tsx/cjs'); require(${JSON.stringify(file)});`;
  return new Promise((resolve, reject) => {
    if (signal.aborted) return reject(new TroubleError('cancelled'));
    const thread = new Worker(code, { eval: true, workerData: data });
    let grace: ReturnType<typeof setTimeout> | undefined;
    const stop = () => {
      thread.postMessage('stop');
      grace = setTimeout(() => end(() => reject(new TroubleError('cancelled'))), GRACE);
    };
    const end = (settle: () => void) => {
      clearTimeout(grace);
      signal.removeEventListener('abort', stop);
      void thread.terminate();
      settle();
    };
    const failed = (failure: Failure) =>
      end(() => reject(signal.aborted ? new TroubleError('cancelled') : errorOf(failure)));
    thread.on('message', (answer: ThreadAnswer<Progress, Result>) => {
      if (answer.type === 'progress') report(answer.progress);
      else if (answer.type === 'done') end(() => resolve(answer.result));
      else failed(answer.failure);
    });
    thread.on('error', (error) => failed(failureOf(error)));
    thread.on('exit', () => failed(failureOf('the thread ended')));
    signal.addEventListener('abort', stop);
  });
}
