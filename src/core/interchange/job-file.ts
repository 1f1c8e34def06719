import { z } from 'zod';
import { measure } from '../figures/bounded';
import { describeProblem } from '../figures/schema-problem';
import { EMPTY_HISTORY } from '../job/history';
import { type Job, JOB_VERSION, jobSchema } from '../job/job';
import { migrateJob } from '../job/migrate';
import { checkJobFile } from '../job/stored-job';

const FORMAT = 'gusset-job';

/** A job as a file: all that was made of its masters, and which files those are. Exported clips stay behind. */
const jobFileSchema = z.object({
  format: z.literal(FORMAT),
  job: jobSchema.omit({ exports: true }),
});

/** A job as a JSON file. */
export function writeJobFile(job: Job): string {
  const { exports: _exports, ...rest } = job;
  return `${JSON.stringify({ format: FORMAT, job: rest }, null, 2)}\n`;
}

/** Why a file cannot be taken in as a job. */
type JobFileProblem = 'not-a-job' | 'newer' | 'damaged';
export type ReadJobFile = { ok: true; job: Job } | { ok: false; problem: JobFileProblem; detail: string };

const outerSchema = z.object({
  format: z.literal(FORMAT),
  job: z.looseObject({ schemaVersion: measure() }),
});

/** Reads a job from a JSON file, also one of an earlier version. Never throws. */
export function readJobFile(text: string): ReadJobFile {
  const outer = outerSchema.safeParse(parseJson(text));
  if (!outer.success)
    return { ok: false, problem: 'not-a-job', detail: 'it is not a job that was saved here' };
  const { job } = outer.data;
  const version = job.schemaVersion;
  if (version > JOB_VERSION) {
    return { ok: false, problem: 'newer', detail: `it was saved by a newer Gusset (version ${version})` };
  }
  try {
    const whole = jobSchema.parse({
      ...(migrateJob({ ...job, exports: [] }, version) as object),
      exports: [],
    });
    const read = checkJobFile({ job: whole, history: EMPTY_HISTORY, revision: 0 });
    return read.ok
      ? { ok: true, job: whole }
      : { ok: false, problem: 'damaged', detail: `it does not hold together: ${read.detail}` };
  } catch (error) {
    const detail = error instanceof z.ZodError ? describeProblem(error, 'the job') : 'it cannot be read';
    return { ok: false, problem: 'damaged', detail };
  }
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** The published form of the file, as JSON Schema (draft 2020-12). */
export function jobFileJsonSchema(): object {
  return z.toJSONSchema(jobFileSchema, { io: 'input' });
}

/** File name of a job: `kite-day.gusset.json`. */
export const jobFileName = (job: Pick<Job, 'title'>, ending: 'json' | 'zip'): string =>
  `${jobFileStem(job)}.gusset.${ending}`;

/** Makes the beginning of the names of a job's files. */
export function jobFileStem({ title }: Pick<Job, 'title'>): string {
  const base = title
    .normalize('NFKD')
    .replace(/[^\p{Letter}\p{Number}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 60);
  return base || 'job';
}
