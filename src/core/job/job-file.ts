import { z } from 'zod';
import { EMPTY_HISTORY, type History } from './history';
import { JOB_VERSION, jobSchema, type Job } from './job';
import { migrated } from './migrate';
import { packedHistorySchema, packHistory, unpackHistory } from './packed-history';

/** A job as it is stored, with its undo history. */
export interface JobFile {
  job: Job;
  history: History;
}

/** What came of reading a stored job. */
export type ReadJob =
  { ok: true; file: JobFile } | { ok: false; problem: 'damaged' | 'newer'; detail: string };

const fileSchema = z.object({ job: z.unknown(), history: z.unknown() });
const versionSchema = z.object({ job: z.object({ schemaVersion: z.number() }) });

/** A job as text. */
export function writeJob({ job, history }: JobFile): string {
  return JSON.stringify({ job, history: packHistory(history) });
}

/**
 * Reads a stored job, also one of an older version. Never throws: a damaged one and one of a newer version are told
 * apart and left alone.
 */
export function readJob(text: string): ReadJob {
  try {
    const value: unknown = JSON.parse(text);
    const version = versionSchema.safeParse(value);
    if (version.success && version.data.job.schemaVersion > JOB_VERSION) {
      return { ok: false, problem: 'newer', detail: `version ${version.data.job.schemaVersion}` };
    }
    const file = fileSchema.parse(value);
    const old = version.success && version.data.job.schemaVersion < JOB_VERSION;
    const job = jobSchema.parse(old ? migrated(file.job, version.data.job.schemaVersion) : file.job);
    return { ok: true, file: { job, history: old ? EMPTY_HISTORY : readHistory(file.history) } };
  } catch (error) {
    return { ok: false, problem: 'damaged', detail: detailOf(error) };
  }
}

/** A history that went bad costs undo, not the job. */
function readHistory(value: unknown): History {
  try {
    return unpackHistory(packedHistorySchema.parse(value));
  } catch {
    return EMPTY_HISTORY;
  }
}

function detailOf(error: unknown): string {
  if (error instanceof z.ZodError) {
    const issue = error.issues[0];
    return `${issue?.path.join('.')}: ${issue?.message}`;
  }
  return error instanceof Error ? error.message : 'not JSON';
}
