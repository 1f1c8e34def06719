import { TroubleError } from '@core/trouble/trouble';
import { type ProgressOf, type RequestOf, type ResultOf, type TaskName, TASKS } from './task-table';
import type { TaskDefinition } from './task-definition';
import { KEEP, workerEventSchema, type WorkerOrder } from './worker-protocol';
import { workerTrouble } from './worker-trouble';
import { workerUrls } from './worker-urls';

/** Callbacks and signal by which a caller follows and stops a task. */
export interface TaskCallbacks<Told> {
  onProgress?: (progress: Told) => void;
  signal?: AbortSignal;
}

/**
 * Runs one task in a worker of its own and ends the worker afterwards.
 * @throws TroubleError with what the worker told, or `cancelled`.
 */
export function runTask<Name extends TaskName>(
  name: Name,
  request: RequestOf<Name>,
  { onProgress, signal }: TaskCallbacks<ProgressOf<Name>> = {},
): Promise<ResultOf<Name>> {
  const { progress, result, graceMs } = TASKS[name] as unknown as TaskDefinition<
    RequestOf<Name>,
    ProgressOf<Name>,
    ResultOf<Name>
  >;
  return new Promise((resolve, reject) => {
    if (signal?.aborted) return reject(new TroubleError('cancelled'));
    const worker = new Worker(workerUrls.task, { type: 'module', name });
    const send = (order: WorkerOrder) => worker.postMessage(order);
    let grace: ReturnType<typeof setTimeout> | undefined;
    const cancel = () => {
      send({ type: 'cancel', why: signal?.reason === KEEP ? KEEP : null });
      grace = setTimeout(() => end(() => reject(new TroubleError('cancelled'))), graceMs);
    };
    const end = (settle: () => void) => {
      clearTimeout(grace);
      signal?.removeEventListener('abort', cancel);
      worker.terminate();
      settle();
    };
    worker.onerror = (event) => end(() => reject(workerTrouble(event)));
    const misheard = () => end(() => reject(new TroubleError('worker-answer')));
    worker.onmessageerror = misheard;
    worker.onmessage = ({ data }: MessageEvent<unknown>) => {
      const event = workerEventSchema.safeParse(data).data;
      if (event?.type === 'failed') return end(() => reject(TroubleError.of(event.trouble)));
      if (event?.type === 'progress') {
        const known = progress.safeParse(event.progress);
        return known.success ? onProgress?.(known.data) : misheard();
      }
      const known = result.safeParse(event?.result);
      if (event?.type === 'done' && known.success) end(() => resolve(known.data));
      else misheard();
    };
    signal?.addEventListener('abort', cancel);
    send({ type: 'start', request });
  });
}
