import { z } from 'zod';
import { boundedCount, measure } from '../figures/bounded';
import { describeProblem } from '../figures/schema-problem';
import { entrySchema, type JobFile, replayEntry } from './document';
import { EMPTY_HISTORY, historySchema } from './history';
import { type Job, JOB_VERSION, jobSchema } from './job';
import { migrateJob } from './migrate';
import { historyFromFourth } from './migrate-fourth';
import { historyFromThird } from './migrate-history';
import { exportRecordSchema, postRecordSchema } from './records';
import { referenceFaults } from './references';

/** A job as it is stored: texts that are written each by itself. */
export interface StoredJob {
  /** The job without what is stored beside it, at some revision. */
  document: string;
  /** Its undo history at that revision, or null where it is lost. */
  history: string | null;
  /** Changes since, in order. */
  entries: readonly string[];
  exports: readonly string[];
  posts: readonly string[];
}

/** Why a stored job does not open. */
export interface UnreadableJob {
  problem: 'damaged' | 'newer';
  detail: string;
}
export type ReadJob = { ok: true; file: JobFile } | ({ ok: false } & UnreadableJob);

const versionSchema = z.object({ schemaVersion: measure() });
const documentSchema = z.object({ revision: boundedCount(), job: z.unknown() });
const storedHistorySchema = z.object({ revision: measure(), history: historySchema });

/** The texts of a job at its revision, with nothing left to replay. */
export function storedJob({ job, history, revision }: JobFile): StoredJob {
  const { exports, posts, ...document } = job;
  return {
    document: JSON.stringify({ revision, job: document }),
    history: JSON.stringify({ revision, history }),
    entries: [],
    exports: exports.map((record) => JSON.stringify(record)),
    posts: posts.map((record) => JSON.stringify(record)),
  };
}

/**
 * Reads a stored job: its document, then the changes since. Never throws: what is damaged, what does not hold
 * together and what is of a newer version is told apart and left alone. A history that went bad costs undo alone.
 */
export function readStoredJob(stored: StoredJob): ReadJob {
  return reading(() => {
    const { revision, job } = documentSchema.parse(JSON.parse(stored.document));
    const version = versionSchema.parse(job).schemaVersion;
    if (version > JOB_VERSION) return newer(version);
    const exports = readRecords(exportRecordSchema, stored.exports);
    const posts = readRecords(postRecordSchema, stored.posts);
    const whole: unknown = { ...(job as object), exports, posts };
    const entries = stored.entries.map((text) => entrySchema.parse(JSON.parse(text)));
    const history = readHistory(stored.history, revision);
    if (version === JOB_VERSION) {
      const now = { job: jobSchema.parse(whole), history, revision };
      return checkJobFile(entries.reduce(replayEntry, now));
    }
    // Changes are of the form that they were made in.
    const then = entries.reduce(replayEntry, { job: whole as Job, history, revision });
    const now = jobSchema.parse(migrateJob(then.job, version));
    const { history: steps } = then;
    return checkJobFile({ ...then, job: now, history: historyFromFourth(steps, then.job.edit) });
  });
}

/** Reads a job as versions 1 to 3 stored it: one text with its history. */
export function readOldJob(text: string): ReadJob {
  return reading(() => {
    const value = z.object({ job: versionSchema.loose(), history: z.unknown() }).parse(JSON.parse(text));
    const { schemaVersion: version } = value.job;
    if (version > JOB_VERSION) return newer(version);
    const job = jobSchema.parse(migrateJob(value.job, version));
    const masters = job.masters.map((master) => master.id);
    // Histories of versions 1 and 2 held edits of forms that are gone.
    const history = version === 3 ? historyFromThird(value.history, job.edit, masters) : EMPTY_HISTORY;
    return checkJobFile({ job, history, revision: 0 });
  });
}

/** A job as it came, opened only where all that it names is there. */
export function checkJobFile(file: JobFile): ReadJob {
  const job = jobSchema.safeParse(file.job);
  if (!job.success) return { ok: false, problem: 'damaged', detail: describeProblem(job.error) };
  const [fault] = referenceFaults(job.data);
  return fault === undefined ? { ok: true, file } : { ok: false, problem: 'damaged', detail: fault };
}

const newer = (version: number): ReadJob => ({ ok: false, problem: 'newer', detail: `version ${version}` });

function reading(read: () => ReadJob): ReadJob {
  try {
    return read();
  } catch (error) {
    const detail =
      error instanceof z.ZodError
        ? describeProblem(error)
        : error instanceof Error
          ? error.message
          : 'it cannot be read';
    return { ok: false, problem: 'damaged', detail };
  }
}

function readHistory(text: string | null, revision: number): JobFile['history'] {
  try {
    const stored = storedHistorySchema.parse(JSON.parse(text ?? ''));
    return stored.revision === revision ? stored.history : EMPTY_HISTORY;
  } catch {
    return EMPTY_HISTORY;
  }
}

/** Records that can be read, newest first; the others stay where they are stored. */
export function readRecords<T extends { startedAt: string } | { at: string }>(
  schema: z.ZodType<T>,
  texts: readonly string[],
): T[] {
  const toTime = (record: T) => ('at' in record ? record.at : record.startedAt);
  return texts
    .flatMap((text) => {
      try {
        return [schema.parse(JSON.parse(text))];
      } catch {
        return [];
      }
    })
    .sort((a, b) => toTime(b).localeCompare(toTime(a)));
}
