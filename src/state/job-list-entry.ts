import type { z } from 'zod';
import type { JobHead, JobFile } from '@core/job/document';
import { type ExportRecord, exportRecordSchema, type PostRecord, postRecordSchema } from '@core/job/records';
import { readRecords } from '@core/job/stored-job';

/** Entry of the list of jobs: a job's head, and the state of its exports and posts. */
export interface JobListEntry {
  head: JobHead;
  /** Newest first. */
  exports: ExportRecord[];
  posts: PostRecord[];
}

/** A job in the list, from what is stored of it. */
export function toJobListEntry(
  head: JobHead,
  exports: readonly string[] = [],
  posts: readonly string[] = [],
): JobListEntry {
  return {
    head,
    exports: readRecords(exportRecordSchema as z.ZodType<ExportRecord>, exports),
    posts: readRecords(postRecordSchema as z.ZodType<PostRecord>, posts),
  };
}

/** A record of a job that was put, or taken away. */
export type RecordChange =
  | { kind: 'export'; id: string; record: ExportRecord | null }
  | { kind: 'post'; id: string; record: PostRecord | null };

/** Records with one put in front, or in its old place, or taken away. */
function changeRecord<T extends { id: string }>(all: readonly T[], id: string, record: T | null): T[] {
  if (!record) return all.filter((item) => item.id !== id);
  return all.some((item) => item.id === id)
    ? all.map((item) => (item.id === id ? record : item))
    : [record, ...all];
}

interface Records {
  exports: ExportRecord[];
  posts: PostRecord[];
}
function withRecord<T extends Records>(of: T, { kind, id, record }: RecordChange): T {
  return kind === 'export'
    ? { ...of, exports: changeRecord(of.exports, id, record) }
    : { ...of, posts: changeRecord(of.posts, id, record) };
}

/** Updates the entries after a record of a job changed. */
export function updateListEntries(
  state: { listed: Record<string, JobListEntry>; files: Record<string, JobFile> },
  job: string,
  change: RecordChange,
): typeof state {
  const { listed, files } = state;
  const known = listed[job];
  const file = files[job];
  return {
    listed: known ? { ...listed, [job]: withRecord(known, change) } : listed,
    files: file ? { ...files, [job]: { ...file, job: withRecord(file.job, change) } } : files,
  };
}
