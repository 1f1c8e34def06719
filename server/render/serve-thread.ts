import { parentPort, workerData } from 'node:worker_threads';
import { type Failure, failureOf } from './failure';

/** What a thread tells of its work. */
export type ThreadAnswer<Progress, Result> =
  | { type: 'progress'; progress: Progress }
  | { type: 'done'; result: Result }
  | { type: 'failed'; failure: Failure };

/** Does the work that this thread was started for; it ends when it is told to stop. */
export function serveThread<Data, Progress, Result>(
  work: (data: Data, report: (progress: Progress) => void, signal: AbortSignal) => Promise<Result>,
): void {
  const stop = new AbortController();
  const tell = (answer: ThreadAnswer<Progress, Result>): void => parentPort?.postMessage(answer);
  parentPort?.on('message', () => stop.abort());
  work(workerData as Data, (progress) => tell({ type: 'progress', progress }), stop.signal).then(
    (result) => tell({ type: 'done', result }),
    (error: unknown) => tell({ type: 'failed', failure: failureOf(error) }),
  );
}
