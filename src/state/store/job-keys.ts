/**
 * Stored part of a job: its head for the list, its document and history, the changes since, and its records.
 */
export type JobPart = 'head' | 'document' | 'history' | 'entry' | 'export' | 'post';

const JOB = 'job/';
/** Revisions are written at one length, so that keys sort as numbers do. */
const DIGITS = 10;

export const headKey = (job: string): string => `${JOB}${job}/head`;
export const documentKey = (job: string): string => `${JOB}${job}/document`;
export const historyKey = (job: string): string => `${JOB}${job}/history`;
export const entryKey = (job: string, revision: number): string =>
  `${JOB}${job}/entry/${String(revision).padStart(DIGITS, '0')}`;
export const recordKey = (job: string, kind: 'export' | 'post', id: string): string =>
  `${JOB}${job}/${kind}/${id}`;

/** A key taken apart, or null for one that is no job's. */
export function parseJobKey(key: string): { job: string; piece: JobPart; id: string } | null {
  const [, job, piece, id = ''] =
    /^job\/([^/]+)\/(head|document|history|entry|export|post)(?:\/(.+))?$/.exec(key) ?? [];
  return job && piece ? { job, piece: piece as JobPart, id } : null;
}
