import { TroubleError } from '@core/trouble/trouble';
import type { Implementation } from './implementations';
import type { ProgressOf, RequestOf, TaskName } from './task-table';
import type { Progress, WorkerEvent, WorkerOrder } from './worker-protocol';

/** The worker's side of a task: what it may tell, and the signal that says stop. */
export interface TaskContext<Told = Progress> {
  report(progress: Told, transfer?: Transferable[]): void;
  signal: AbortSignal;
}

/** Runs one task in this worker: waits for the order, tells progress, the result or the trouble. */
export function serveTask<Name extends TaskName>({ load, troubleOf }: Implementation<Name>): void {
  const stop = new AbortController();
  const post = (event: WorkerEvent, transfer: Transferable[] = []) => self.postMessage(event, { transfer });
  const run = async (request: RequestOf<Name>) => {
    try {
      const report: TaskContext<ProgressOf<Name>>['report'] = (progress, transfer) =>
        post({ type: 'progress', progress }, transfer);
      const task = await load().catch((error: unknown) => {
        throw new TroubleError('worker-code', { detail: String(error) });
      });
      post({ type: 'done', result: await task(request, { report, signal: stop.signal }) });
    } catch (error) {
      const trouble = stop.signal.aborted ? new TroubleError('cancelled').trouble : troubleOf(error, request);
      post({ type: 'failed', trouble });
    }
  };
  self.onmessage = ({ data }: MessageEvent<WorkerOrder>) => {
    if (data.type === 'cancel') stop.abort(data.why);
    else void run(data.request as RequestOf<Name>);
  };
}

/** @throws TroubleError `cancelled` once the signal says stop. */
export function throwIfStopped(signal: AbortSignal): void {
  if (signal.aborted) throw new TroubleError('cancelled');
}
