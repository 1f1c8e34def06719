import { z } from 'zod';
import { EMPTY_HISTORY, historySchema, type History } from './history';
import { JOB_VERSION, jobSchema, type Job } from './job';

/** A job as it is stored, with its undo history. */
export interface JobFile {
  job: Job;
  history: History;
}

/** What came of reading a stored job. */
export type ReadJob =
  { ok: true; file: JobFile } | { ok: false; problem: 'damaged' | 'newer'; detail: string };

const fileSchema = z.object({ job: jobSchema, history: historySchema });
const versionSchema = z.object({ job: z.object({ schemaVersion: z.number() }) });

/** A job as text. */
export function writeJob(file: JobFile): string {
  return JSON.stringify(file);
}

/** Reads a stored job. Never throws: a damaged one and one of a newer version are told apart and left alone. */
export function readJob(text: string): ReadJob {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    return { ok: false, problem: 'damaged', detail: error instanceof Error ? error.message : 'not JSON' };
  }
  const version = versionSchema.safeParse(value);
  if (version.success && version.data.job.schemaVersion > JOB_VERSION) {
    return { ok: false, problem: 'newer', detail: `version ${version.data.job.schemaVersion}` };
  }
  const parsed = fileSchema.safeParse(value);
  if (parsed.success) return { ok: true, file: parsed.data };
  // A history that went bad costs undo, not the job.
  const jobOnly = z.object({ job: jobSchema }).safeParse(value);
  if (jobOnly.success) return { ok: true, file: { job: jobOnly.data.job, history: EMPTY_HISTORY } };
  const issue = parsed.error.issues[0];
  return { ok: false, problem: 'damaged', detail: `${issue?.path.join('.')}: ${issue?.message}` };
}
