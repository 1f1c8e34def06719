import { z } from 'zod';
import { measure } from '@core/figures/bounded';
import { troubleSchema } from '@core/trouble/trouble';

/** Event of a worker that does one task. */
export const workerEventSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('progress'), progress: z.unknown() }),
  z.object({ type: z.literal('done'), result: z.unknown() }),
  z.object({ type: z.literal('failed'), trouble: troubleSchema }),
]);
export type WorkerEvent = z.infer<typeof workerEventSchema>;

/** Why a task is stopped that is to be taken up again: what is whole of it stays. */
export const KEEP = 'keep';

/** Order to such a worker: first the task, then perhaps that it should stop. */
export type WorkerOrder = { type: 'start'; request: unknown } | { type: 'cancel'; why: unknown };

/** How far a task is. */
export const progressSchema = z.object({
  stage: z.string(),
  done: measure(),
  total: measure(),
});
export type Progress = z.infer<typeof progressSchema>;
