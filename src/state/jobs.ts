import { create } from 'zustand';
import { applyCommand, type Command } from '@core/job/commands/commands';
import { EMPTY_HISTORY, recorded, redone, undone, type Versioned } from '@core/job/history';
import { type Job, onCanvas } from '@core/job/job';
import type { Master } from '@core/master/master';
import type { JobFile } from '@core/job/job-file';
import type { ExportRecord, PostRecord } from '@core/job/records';
import { troubleOf, type Trouble } from '@core/trouble/trouble';
import { type AsideJob, deleteJob, loadJobs, saveJob } from './persistence';

/** Two steps of the same kind within this time are one for undo, in milliseconds. */
const JOIN_WITHIN = 1200;

interface JobsState {
  loaded: boolean;
  files: Record<string, JobFile>;
  aside: AsideJob[];
  /** Why the last change is not stored, if it is not. */
  saveTrouble: Trouble | null;
}

export const useJobs = create<JobsState>(() => ({ loaded: false, files: {}, aside: [], saveTrouble: null }));

/** The last step that may still be continued: a held key, a word being typed. */
let lastStep: { id: string; joins: string; at: number } | null = null;

/** Reads every stored job, once. An export that was running when the page closed was interrupted. */
export async function openJobs(): Promise<void> {
  if (useJobs.getState().loaded) return;
  const { files, aside } = await loadJobs();
  const byId = Object.fromEntries(files.map((file) => [file.job.id, withInterrupted(file)]));
  useJobs.setState({ loaded: true, files: byId, aside });
}

function withInterrupted(file: JobFile): JobFile {
  const exports = file.job.exports.map((record): ExportRecord =>
    record.state === 'running' || record.state === 'reading-back'
      ? { ...record, state: 'interrupted' }
      : record,
  );
  return { ...file, job: { ...file.job, exports } };
}

function put(file: JobFile): void {
  const stamped = { ...file, job: { ...file.job, changedAt: new Date().toISOString() } };
  useJobs.setState((state) => ({ files: { ...state.files, [file.job.id]: stamped } }));
  saveJob(stamped).then(
    () => useJobs.setState({ saveTrouble: null }),
    (error: unknown) => useJobs.setState({ saveTrouble: troubleOf(error, 'save-failed') }),
  );
}

function fileOf(id: string): JobFile {
  const file = useJobs.getState().files[id];
  if (!file) throw new RangeError(`there is no job ${id}`);
  return file;
}

export function addJob(job: Job): void {
  put({ job, history: EMPTY_HISTORY });
}

export async function removeJob(id: string): Promise<void> {
  await deleteJob(id);
  useJobs.setState((state) => {
    const { [id]: _gone, ...files } = state.files;
    return { files };
  });
}

/**
 * Applies a command to a job and stores it.
 * @param joins steps with the same word shortly after each other are undone together.
 */
export function dispatch(id: string, command: Command, joins?: string): void {
  const { job, history } = fileOf(id);
  const after = applyCommand(job.edit, command);
  const now = Date.now();
  const continues =
    joins !== undefined && lastStep?.id === id && lastStep.joins === joins && now - lastStep.at < JOIN_WITHIN;
  lastStep = joins === undefined ? null : { id, joins, at: now };
  const next = recorded({ edit: job.edit, history }, after, command, continues);
  put({ job: { ...job, edit: next.edit }, history: next.history });
}

/** Works on another clip of a job. It changes nothing that is made, so there is nothing to undo. */
export function setClip(id: string, clip: string): void {
  const { job, history } = fileOf(id);
  put({ job: { ...job, edit: { ...job.edit, clip } }, history });
}

/** Works on another canvas of a job's clip; as with clips, there is nothing to undo. */
export function setCanvas(id: string, canvas: string): void {
  const { job, history } = fileOf(id);
  put({ job: onCanvas(job, canvas), history });
}

/** Adds a master that a clip may take ranges from; the same file is added once. */
export function addMaster(id: string, master: Master): void {
  const { job, history } = fileOf(id);
  if (job.masters.some((one) => one.id === master.id)) return;
  put({ job: { ...job, masters: [...job.masters, master] }, history });
}

function travel(id: string, step: (versioned: Versioned) => Versioned): void {
  const { job, history } = fileOf(id);
  lastStep = null;
  const next = step({ edit: job.edit, history });
  put({ job: { ...job, edit: next.edit }, history: next.history });
}

export const undo = (id: string): void => travel(id, undone);
export const redo = (id: string): void => travel(id, redone);

/** Adds an export's record, or replaces the one with its id. */
export function putExport(id: string, record: ExportRecord): void {
  const file = useJobs.getState().files[id];
  // The job may have been deleted while its export ran.
  if (!file) return;
  const exports = [record, ...file.job.exports.filter((one) => one.id !== record.id)];
  put({ ...file, job: { ...file.job, exports } });
}

export function dropExport(id: string, exportId: string): void {
  const file = fileOf(id);
  put({ ...file, job: { ...file.job, exports: file.job.exports.filter((one) => one.id !== exportId) } });
}

export function addPost(id: string, record: PostRecord): void {
  const file = fileOf(id);
  put({ ...file, job: { ...file.job, posts: [record, ...file.job.posts] } });
}
