import { type Trouble, TroubleError } from '@core/trouble/trouble';
import type { WorkerEvent, WorkerOrder } from './worker-protocol';

/** The worker's side of a task: what it may tell, and the signal that says stop. */
export interface TaskContext {
  report(progress: unknown, transfer?: Transferable[]): void;
  signal: AbortSignal;
}

/**
 * Runs one task in this worker: waits for the order, tells progress, the result or the trouble.
 * @param troubleOf what an error of it is to a person.
 */
export function serveTask<Request, Result>(
  task: (request: Request, context: TaskContext) => Promise<Result>,
  troubleOf: (error: unknown, request: Request) => Trouble,
): void {
  const stop = new AbortController();
  const post = (event: WorkerEvent, transfer: Transferable[] = []) => self.postMessage(event, { transfer });
  const run = async (request: Request) => {
    try {
      const report: TaskContext['report'] = (progress, transfer) =>
        post({ type: 'progress', progress }, transfer);
      post({ type: 'done', result: await task(request, { report, signal: stop.signal }) });
    } catch (error) {
      const trouble = stop.signal.aborted ? new TroubleError('cancelled').trouble : troubleOf(error, request);
      post({ type: 'failed', trouble });
    }
  };
  self.onmessage = ({ data }: MessageEvent<WorkerOrder>) => {
    if (data.type === 'cancel') stop.abort(data.why);
    else void run(data.request as Request);
  };
}

/** @throws TroubleError `cancelled` once the signal says stop. */
export function throwIfStopped(signal: AbortSignal): void {
  if (signal.aborted) throw new TroubleError('cancelled');
}
