import type { z } from 'zod';
import { progressSchema, type Progress } from './worker-protocol';

/** A worker that was told to stop gets this long to clean up, in milliseconds. */
const GRACE_MS = 4000;

declare const asked: unique symbol;

/** Definition of a task, shared by the page that asks for it and the worker that does it. */
export interface TaskDefinition<Request, Progress, Result> {
  /** Its request, for types alone. */
  readonly [asked]?: Request;
  progress: z.ZodType<Progress>;
  result: z.ZodType<Result>;
  /** Time to clean up after it was told to stop, in milliseconds. */
  graceMs: number;
}

/** Declares a task by its request: `declareTask<Request>()({ result })`. */
export const declareTask =
  <Request>() =>
  <Result, Told = Progress>(
    task: Pick<TaskDefinition<Request, Told, Result>, 'result'> &
      Partial<TaskDefinition<Request, Told, Result>>,
  ): TaskDefinition<Request, Told, Result> => ({
    progress: progressSchema as unknown as z.ZodType<Told>,
    graceMs: GRACE_MS,
    ...task,
  });
