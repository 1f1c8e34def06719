import { JOB_VERSION } from './job';
import { fromFirst } from './migrate-first';
import { fromSecond } from './migrate-second';
import { fromFourth } from './migrate-fourth';
import { fromThird } from './migrate-third';

/** Migrations that make a stored job of each older version one of the next. */
const STEPS: Record<number, (job: unknown) => unknown> = {
  1: fromFirst,
  2: fromSecond,
  3: fromThird,
  4: fromFourth,
};

/**
 * A stored job of an older version in the form of today.
 * @throws ZodError for what never was such a job.
 */
export function migrateJob(job: unknown, version: number): unknown {
  let now = job;
  for (let from = version; from < JOB_VERSION; from++) now = STEPS[from]?.(now) ?? now;
  return now;
}
