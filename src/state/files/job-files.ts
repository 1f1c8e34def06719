import { create } from 'zustand';
import type { Job } from '@core/job/job';
import { jobFileName, readJobFile, writeJobFile } from '@core/interchange/job-file';
import { toTrouble, type Trouble, TroubleError } from '@core/trouble/trouble';
import { JOB_ENTRY, masterEntry } from '@media/archive/archive';
import { deleteStored, storedFile } from '@media/store/storage';
import { packStored, unpackJobFile } from '@media/worker/tasks';
import type { Progress } from '@media/worker/worker-protocol';
import { bringIn } from './bring-in';
import { forgetMaster, isUsed } from './delete-job';
import { addCopy, addJob, useJobs } from '../job';
import { loadJob } from '../store';
import { awaitOutcome } from '../task';

interface JobFilesState {
  /** Running save or import, or null. */
  busy: { name: string; progress: Progress | null } | null;
  trouble: Trouble | null;
}

export const useJobFiles = create<JobFilesState>(() => ({ busy: null, trouble: null }));

let stop: AbortController | null = null;

export function cancelJobFile(): void {
  stop?.abort();
}

export function dismissJobFile(): void {
  useJobFiles.setState({ trouble: null });
}

const onProgress = (progress: Progress): void =>
  useJobFiles.setState(({ busy }) => ({ busy: busy && { ...busy, progress } }));

/** A job as it is stored, or null where it does not open. */
async function storedJob(id: string): Promise<Job | null> {
  const open = useJobs.getState().files[id];
  if (open) return open.job;
  const read = await loadJob(id);
  return read?.ok ? read.file.job : null;
}

/** A job as a JSON file, without its masters. */
export async function createJobFile(id: string): Promise<File | null> {
  const job = await storedJob(id);
  return job && new File([writeJobFile(job)], jobFileName(job, 'json'), { type: 'application/json' });
}

/** A job with its masters as one archive; null when that failed or was stopped. */
export async function createJobArchive(id: string): Promise<File | null> {
  const job = await storedJob(id);
  if (!job) return null;
  const name = `${id}-${Date.now()}.zip`;
  const files = job.masters.map((master) => ({
    ...{ folder: 'masters' as const, name: master.fingerprint, entry: masterEntry(master) },
    ...{ fileName: master.fileName, bytes: master.bytes },
  }));
  const request = { name, texts: [{ entry: JOB_ENTRY, text: writeJobFile(job) }], files };
  const made = await attempt(
    jobFileName(job, 'zip'),
    (signal) => packStored(request, { signal, onProgress }),
    () => deleteStored('archives', name),
    (error) => toTrouble(error, 'save-failed', {}),
  );
  const file = made === null ? null : await storedFile('archives', name);
  return file && new File([file], jobFileName(job, 'zip'), { type: 'application/zip' });
}

/** Copies a job: what was made of its masters, without its exports. @returns the copy's id. */
export async function copyJob(id: string): Promise<string | null> {
  const job = await storedJob(id);
  return job && addCopy(job, `${job.title} (copy)`);
}

/**
 * Takes a job in from a file or an archive. One whose id is here already comes in as a copy: nothing is overwritten.
 * @returns its id, or null when it was refused or stopped.
 */
export async function takeJobFile(file: File): Promise<string | null> {
  let fresh: string[] = [];
  const job = await attempt(
    file.name,
    async (signal) => {
      const unpacked = (await isArchive(file))
        ? await unpackJobFile({ file }, { signal, onProgress })
        : { text: await readText(file), fresh: [] };
      fresh = unpacked.fresh;
      const read = readJobFile(unpacked.text);
      if (!read.ok) throw new TroubleError('job-file', { file: file.name, detail: read.detail });
      return read.job;
    },
    async () => {
      for (const fingerprint of fresh) if (!isUsed(fingerprint)) await forgetMaster(fingerprint);
    },
    (error) => toTrouble(error, 'job-file', { file: file.name }),
  );
  if (!job) return null;
  if (useJobs.getState().listed[job.id]) return addCopy(job, `${job.title} (again)`);
  addJob(job);
  return job.id;
}

/**
 * Takes a file that a person chose, dropped or shared: a job that was saved, or else a video. Never rejects.
 * @returns the id of the job that it became, or null when it was refused or stopped.
 */
export async function takeFile(file: File): Promise<string | null> {
  const isJob = await isJobFile(file).catch(() => null);
  if (isJob !== null) return isJob ? takeJobFile(file) : bringIn(file);
  useJobFiles.setState({ trouble: { code: 'unreadable-file', values: { file: file.name } } });
  return null;
}

/** Tells whether a file is one that a job was saved as, by how it begins. @throws where it cannot be read. */
async function isJobFile(file: File): Promise<boolean> {
  if (await isArchive(file)) return true;
  return /^\s*\{\s*"format":\s*"gusset-job"/.test(await file.slice(0, 200).text());
}

/** Tells whether a file begins as an archive does (APPNOTE.TXT 4.3.7: the local file header's signature). */
async function isArchive(file: File): Promise<boolean> {
  const head = new Uint8Array(await file.slice(0, 4).arrayBuffer());
  return head[0] === 0x50 && head[1] === 0x4b && head[2] === 3 && head[3] === 4;
}

/** Largest job file that is read, in bytes. */
const MAX_BYTES = 50e6;

function readText(file: File): Promise<string> {
  if (file.size <= MAX_BYTES) return file.text();
  const detail = `${Math.round(file.size / 1e6)} MB is too large for a job`;
  throw new TroubleError('job-file', { file: file.name, detail });
}

async function attempt<T>(
  name: string,
  run: (signal: AbortSignal) => Promise<T>,
  clean: () => Promise<void>,
  trouble: (error: unknown) => Trouble,
): Promise<T | null> {
  stop?.abort();
  const mine = (stop = new AbortController());
  useJobFiles.setState({ busy: { name, progress: null }, trouble: null });
  const outcome = await awaitOutcome({ run, clean, trouble }, mine.signal);
  if (stop === mine) useJobFiles.setState({ busy: null });
  if (outcome.state === 'failed') useJobFiles.setState({ trouble: outcome.trouble });
  return outcome.state === 'done' ? outcome.result : null;
}
