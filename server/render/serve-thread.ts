import { parentPort } from 'node:worker_threads';
import { type Failure, toFailure } from './failure';

/** Message to a thread. */
type ThreadOrder<Data> = { type: 'work'; data: Data } | { type: 'stop' };
export type ThreadAnswer<Progress, Result> =
  | { type: 'progress'; progress: Progress }
  | { type: 'done'; result: Result }
  | { type: 'failed'; failure: Failure };

/** Does work that this thread is given, one piece after another. */
export function serveThread<Data, Progress, Result>(
  work: (data: Data, report: (progress: Progress) => void, signal: AbortSignal) => Promise<Result>,
): void {
  let stop = new AbortController();
  const tell = (answer: ThreadAnswer<Progress, Result>): void => parentPort?.postMessage(answer);
  parentPort?.on('message', (order: ThreadOrder<Data>) => {
    if (order.type === 'stop') return stop.abort();
    stop = new AbortController();
    work(order.data, (progress) => tell({ type: 'progress', progress }), stop.signal).then(
      (result) => tell({ type: 'done', result }),
      (error: unknown) => tell({ type: 'failed', failure: toFailure(error) }),
    );
  });
}
