import { JOB_VERSION } from './job';
import { fromFirst } from './migrate-first';
import { fromSecond } from './migrate-second';

/** What makes a stored job of each older version one of the next. */
const STEPS: Record<number, (job: unknown) => unknown> = { 1: fromFirst, 2: fromSecond };

/**
 * A stored job of an older version in the form of today; its undo history, which held edits of the old form, ends.
 * @throws ZodError for what never was such a job.
 */
export function migrated(job: unknown, version: number): unknown {
  let now = job;
  for (let at = version; at < JOB_VERSION; at++) now = STEPS[at]?.(now) ?? now;
  return now;
}
