import type { z } from 'zod';
import { TroubleError } from '@core/trouble/trouble';
import { KEEP, workerEventSchema, type WorkerOrder } from './worker-protocol';
import { workerUrls } from './worker-urls';

/** A worker that was told to stop gets this long to clean up, in milliseconds. */
const GRACE_MS = 4000;

/** What a task needs besides its request. */
export interface TaskOptions<Progress, Result> {
  progress: z.ZodType<Progress>;
  result: z.ZodType<Result>;
  onProgress?: (progress: Progress) => void;
  signal?: AbortSignal;
  /** How long it gets to clean up where it was told to stop, in milliseconds. */
  graceMs?: number;
}

/**
 * Runs one task in a worker of its own and ends the worker afterwards.
 * @throws TroubleError with what the worker told, or `cancelled`.
 */
export function runTask<Progress, Result>(
  name: keyof typeof workerUrls,
  request: unknown,
  { progress, result, onProgress, signal, graceMs = GRACE_MS }: TaskOptions<Progress, Result>,
): Promise<Result> {
  return new Promise((resolve, reject) => {
    if (signal?.aborted) return reject(new TroubleError('cancelled'));
    const worker = new Worker(workerUrls[name], { type: 'module' });
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
    worker.onerror = (event) =>
      end(() => reject(new TroubleError('worker-ended', { detail: event.message || 'no reason was given' })));
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
