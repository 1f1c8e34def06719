import { type Entry, type JobHead, toHead, headSchema, type JobFile } from '@core/job/document';
import type { z } from 'zod';
import { type ExportRecord, exportRecordSchema, type PostRecord } from '@core/job/records';
import {
  type ReadJob,
  readStoredJob,
  readRecords,
  storedJob,
  type UnreadableJob,
} from '@core/job/stored-job';
import { documentKey, entryKey, headKey, historyKey, parseJobKey, type JobPart, recordKey } from './job-keys';
import { runAlone } from './locks';
import { storage } from './storage';

/** A stored job that this program cannot open. It stays where it is, untouched. */
export interface AsideJob extends UnreadableJob {
  id: string;
  /** All that is stored of it, to be saved. */
  text: string;
}

/** A write that rested on another revision than the stored one was not made. */
export class StaleWrite extends Error {
  constructor(id: string, stored: number | null, wanted: number) {
    super(`job ${id} is stored at ${stored}, not at ${wanted}`);
    this.name = 'StaleWrite';
  }
}

/** Nobody else writes a job while its stored revision is looked at and gone on from. */
const writing = <T>(id: string, work: () => Promise<T>): Promise<T> => runAlone(`gusset/write/${id}`, work);

const texts = async (keys: readonly string[]): Promise<string[]> => {
  const found = await storage.getMany([...keys]);
  return keys.flatMap((key) => found[key] ?? []);
};

/** Keys of stored jobs, by job and piece, in order. */
async function keysByJob(): Promise<Map<string, Record<JobPart, string[]>>> {
  const jobs = new Map<string, Record<JobPart, string[]>>();
  for (const key of (await storage.getAllKeys()).sort()) {
    const known = parseJobKey(key);
    if (!known) continue;
    const pieces = jobs.get(known.job) ?? {
      head: [],
      document: [],
      history: [],
      entry: [],
      export: [],
      post: [],
    };
    pieces[known.piece].push(key);
    jobs.set(known.job, pieces);
  }
  return jobs;
}

/** Entry of the list for a stored job, and the texts of its records. */
export interface ListedJob {
  head: JobHead;
  exports: string[];
  posts: string[];
}

/** Every stored job that has a head; and those that do not open, with the reason. */
export async function listJobs(): Promise<{ jobs: ListedJob[]; aside: AsideJob[] }> {
  const jobs: ListedJob[] = [];
  const aside: AsideJob[] = [];
  const all = await keysByJob();
  const listed = [...all.values()].flatMap((keys) => [...keys.head, ...keys.export, ...keys.post]);
  const found = await storage.getMany(listed);
  const of = (keys: readonly string[]) => keys.flatMap((key) => found[key] ?? []);
  for (const [id, keys] of all) {
    const records = { exports: of(keys.export), posts: of(keys.post) };
    const head = headOfText(of(keys.head)[0] ?? '');
    if (head?.id === id) {
      jobs.push({ head, ...records });
      continue;
    }
    const read = await loadJob(id);
    // A head that was lost is written again from the job itself.
    if (read?.ok) {
      await storage.setItem(headKey(id), JSON.stringify(toHead(read.file)));
      jobs.push({ head: toHead(read.file), ...records });
    } else if (read) aside.push({ id, ...read, text: await wholeText(id) });
  }
  return { jobs, aside };
}

function headOfText(text: string): JobHead | null {
  try {
    return headSchema.parse(JSON.parse(text));
  } catch {
    return null;
  }
}

/** Reads a whole job; null where there is none. */
export async function loadJob(id: string): Promise<ReadJob | null> {
  const keys = (await keysByJob()).get(id);
  if (!keys) return null;
  const [document = ''] = await texts(keys.document);
  const [history = null] = await texts(keys.history);
  const since = parseRevision(document);
  // Changes that a fold already took in may still lie there.
  const entries = keys.entry.filter((key) => Number(parseJobKey(key)?.id) > since);
  return readStoredJob({
    document,
    history,
    entries: await texts(entries),
    exports: await texts(keys.export),
    posts: await texts(keys.post),
  });
}

const parseRevision = (document: string): number => Number(/^\{"revision":(\d+)/.exec(document)?.[1] ?? 0);

/** All that is stored of a job, as one text. */
async function wholeText(id: string): Promise<string> {
  const keys = (await keysByJob()).get(id);
  const all = Object.values(keys ?? {}).flat();
  return JSON.stringify(await storage.getMany(all));
}

/** Stores a new job. */
export async function createJob(file: JobFile): Promise<void> {
  const { id, exports, posts } = file.job;
  const stored = storedJob(file);
  await storage.setMany({
    [documentKey(id)]: stored.document,
    [historyKey(id)]: stored.history ?? '',
    [headKey(id)]: JSON.stringify(toHead(file)),
    ...Object.fromEntries(
      exports.map((record, i) => [recordKey(id, 'export', record.id), stored.exports[i] ?? '']),
    ),
    ...Object.fromEntries(posts.map((post, i) => [recordKey(id, 'post', post.id), stored.posts[i] ?? ''])),
  });
}

/**
 * Stores one change of a job: the change itself and the new head, at once or not at all.
 * @throws StaleWrite when the stored job is not the one that it rests on.
 */
export function appendEntry(file: JobFile, entry: Entry): Promise<void> {
  const { id } = file.job;
  return writing(id, async () => {
    await requireRevision(id, entry.revision - 1);
    await storage.setMany({
      [entryKey(id, entry.revision)]: JSON.stringify(entry),
      [headKey(id)]: JSON.stringify(toHead(file)),
    });
  });
}

/**
 * Stores a job whole, with nothing left to replay.
 * @param from the revision that is stored. @throws StaleWrite when it is another.
 */
export function compactJob(file: JobFile, from: number): Promise<void> {
  const { id } = file.job;
  return writing(id, async () => {
    await requireRevision(id, from);
    const stored = storedJob(file);
    await storage.setMany({
      [documentKey(id)]: stored.document,
      [historyKey(id)]: stored.history ?? '',
      [headKey(id)]: JSON.stringify(toHead(file)),
    });
    const entries = (await keysByJob()).get(id)?.entry ?? [];
    // What ends here on the way is passed over by its revision when the job is read.
    await storage.removeMany(entries.filter((key) => Number(parseJobKey(key)?.id) <= file.revision));
  });
}

async function requireRevision(id: string, wanted: number): Promise<void> {
  const head = headOfText((await storage.getItem(headKey(id))) ?? '');
  if (head?.revision !== wanted) throw new StaleWrite(id, head?.revision ?? null, wanted);
}

/** The stored revision of a job, or null where there is none. */
export async function storedRevision(id: string): Promise<number | null> {
  return headOfText((await storage.getItem(headKey(id))) ?? '')?.revision ?? null;
}

/** Stores a record beside its job: whoever makes the export or the post writes it, whoever works on the job. */
export function putRecord(
  job: string,
  kind: 'export' | 'post',
  record: ExportRecord | PostRecord,
): Promise<void> {
  return storage.setItem(recordKey(job, kind, record.id), JSON.stringify(record));
}

/** An export's record as it is stored now, or null where there is none that can be read. */
export async function loadExport(job: string, id: string): Promise<ExportRecord | null> {
  const text = await storage.getItem(recordKey(job, 'export', id));
  return readRecords(exportRecordSchema as z.ZodType<ExportRecord>, text === null ? [] : [text])[0] ?? null;
}

export function dropRecord(job: string, kind: 'export' | 'post', id: string): Promise<void> {
  return storage.removeItem(recordKey(job, kind, id));
}

export async function deleteJob(id: string): Promise<void> {
  await writing(id, async () => {
    const keys = (await keysByJob()).get(id);
    await storage.removeMany(Object.values(keys ?? {}).flat());
  });
}
