import { toSheetMark } from '@core/outlets/sheet-mark';
import type { RuleSheet } from '@core/outlets/rule-sheet';
import { create } from 'zustand';
import { CommandRefused } from '@core/job/commands/command';
import type { Command } from '@core/job/commands/commands';
import {
  type JobChange,
  type Entry,
  type JobMetadata,
  createMetadataChange,
  type JobHead,
  toHead,
  type JobFile,
  replayEntry,
} from '@core/job/document';
import {
  type EditChange,
  computeChange,
  extendStep,
  EMPTY_HISTORY,
  recordStep,
  redoStep,
  undoStep,
  type EditWithHistory,
} from '@core/job/history';
import { activeCanvas } from '@core/job/clip';
import { activeClip, type Job, onCanvas, onClip } from '@core/job/job';
import { referenceFaults } from '@core/job/references';
import type { Master } from '@core/master/master';
import type { Trouble } from '@core/trouble/trouble';
import { updateListEntries, type JobListEntry, toJobListEntry } from '../job-list-entry';
import {
  type AsideJob,
  createJob,
  deleteJob,
  listenToTabs,
  JobWriter,
  leaveWork,
  listJobs,
  loadJob,
  storedRevision,
  type TabMessage,
  takeOver,
  takeWork,
  tellTabs,
  keepWorkOpen,
  type WorkListener,
} from '../store';

/** Two steps of the same kind within this time are one for undo, in milliseconds. */
const JOIN_WITHIN = 1200;

interface JobsState {
  loaded: boolean;
  /** Heads of jobs for the list, by job. */
  listed: Record<string, JobListEntry>;
  /** Jobs that were opened. */
  files: Record<string, JobFile>;
  /** Jobs that another tab works on: here they are only shown, as that tab leaves them. */
  watched: Record<string, true>;
  /** Stored jobs that do not open. */
  aside: AsideJob[];
  /** Of each job that could not be stored, why. */
  saveTroubles: Record<string, Trouble>;
  /** Of each job whose last change was refused, why. */
  refusals: Record<string, Trouble>;
}

export const NO_JOBS: JobsState = {
  loaded: false,
  listed: {},
  files: {},
  watched: {},
  aside: [],
  saveTroubles: {},
  refusals: {},
};
export const useJobs = create<JobsState>(() => NO_JOBS);

/** The last step that may still be continued: a held key, a word being typed. */
let lastStep: { id: string; joins: string; time: number } | null = null;

const writer = new JobWriter({
  fileOf: (id) => useJobs.getState().files[id],
  onTrouble: (id, trouble) =>
    useJobs.setState(({ saveTroubles }) => {
      if (trouble) return { saveTroubles: { ...saveTroubles, [id]: trouble } };
      return id in saveTroubles ? { saveTroubles: without(saveTroubles, id) } : {};
    }),
  onConflict: (file) => void keepAsCopy(file),
});

function without<T>(all: Record<string, T>, id: string): Record<string, T> {
  const { [id]: _gone, ...rest } = all;
  return rest;
}

const setWatched = (id: string, watched: boolean): void =>
  useJobs.setState((state) => ({
    watched: watched ? { ...state.watched, [id]: true } : without(state.watched, id),
  }));

function putHead(head: JobHead): void {
  useJobs.setState(({ listed }) => ({
    listed: { ...listed, [head.id]: { ...(listed[head.id] ?? toJobListEntry(head)), head } },
  }));
}

function putFile(file: JobFile): void {
  useJobs.setState(({ files }) => ({ files: { ...files, [file.job.id]: file } }));
  putHead(toHead(file));
}

/** Reads the list of stored jobs, once. */
export async function openJobs(): Promise<void> {
  if (useJobs.getState().loaded) return;
  const left = await takeOver();
  const { jobs, aside } = await listJobs();
  const listed = jobs.map(({ head, exports, posts }) => toJobListEntry(head, exports, posts));
  useJobs.setState({
    loaded: true,
    listed: Object.fromEntries(listed.map((listed) => [listed.head.id, listed])),
    aside: [...aside, ...left],
  });
  listenToTabs(hear);
}

/** How often each job was opened in this tab. */
const visits = new Map<string, number>();

/** Creates the listener for this tab's work on a job. */
const createListener = (id: string): WorkListener => ({
  async onGained() {
    await readAnew(id);
    setWatched(id, false);
  },
  onLost: () => setWatched(id, true),
});

/**
 * Opens a job to work on, or to watch where another tab works on it.
 * @returns false when there is no such job, or it does not open.
 */
export async function openJob(id: string): Promise<boolean> {
  visits.set(id, (visits.get(id) ?? 0) + 1);
  const mine = await takeWork(id, createListener(id));
  setWatched(id, !mine);
  await writer.settled(id);
  const stored = await storedRevision(id);
  const known = useJobs.getState().files[id];
  // What is here may be ahead of what is stored, for want of room: it is what the person made.
  if (known && (stored ?? 0) <= known.revision) return true;
  if (!(await readAnew(id))) return false;
  if (mine) writer.foldSoon(id);
  return true;
}

/** Leaves a job to other tabs, once all that was done here is stored. */
export async function leaveJob(id: string): Promise<void> {
  const visit = visits.get(id);
  await writer.settled(id);
  // Whoever came back meanwhile works on.
  if (visits.get(id) === visit) leaveWork(id);
}

/** Asks the tab that works on a job for it. */
export const takeOverJob = (id: string): void => keepWorkOpen(id, createListener(id));

/** Reads a job as it is stored, with all that was changed here until then. @returns whether it opens. */
async function readAnew(id: string): Promise<boolean> {
  await writer.settled(id);
  const before = useJobs.getState().files[id];
  const read = await loadJob(id);
  // A change that was made here during the reading is not in what was read.
  if (useJobs.getState().files[id] !== before) return readAnew(id);
  if (!read) return false;
  if (!read.ok) {
    const text = JSON.stringify(read);
    useJobs.setState(({ aside }) => ({
      aside: [...aside.filter((job) => job.id !== id), { id, ...read, text }],
    }));
    return false;
  }
  writer.known(id, read.file.revision);
  putFile(read.file);
  return true;
}

/** Takes in what another tab did. */
function hear(message: TabMessage): void {
  const { id } = message;
  const file = useJobs.getState().files[id];
  switch (message.type) {
    case 'changed': {
      putHead(message.head);
      if (!file) return;
      if (file.revision + 1 !== message.entry.revision) return void readAnew(id);
      writer.known(id, message.entry.revision);
      return putFile(replayEntry(file, message.entry));
    }
    case 'rewritten':
      putHead(message.head);
      return file ? void readAnew(id) : undefined;
    case 'record':
      return useJobs.setState((state) => updateListEntries(state, id, message.made));
    case 'deleted':
      return forget(id);
    case 'wanted':
      return void handOver(id);
  }
}

/** Gives a job that this tab works on to the one that wants it, with all that was done. */
async function handOver(id: string): Promise<void> {
  if (!useJobs.getState().files[id] || useJobs.getState().watched[id]) return;
  setWatched(id, true);
  await leaveJob(id);
  await takeWork(id, createListener(id)).then((mine) => setWatched(id, !mine));
}

function forget(id: string): void {
  leaveWork(id);
  useJobs.setState((state) => ({
    files: without(state.files, id),
    listed: without(state.listed, id),
    saveTroubles: without(state.saveTroubles, id),
    refusals: without(state.refusals, id),
  }));
}

/**
 * Keeps a job that another tab took away while it was changed here as a job of its own: nothing is lost
 * (`jobs.test.ts`).
 */
async function keepAsCopy(file: JobFile): Promise<void> {
  const { job } = file;
  const watched = !canChangeJob(job.id);
  // No change is made to it until it is what is stored: it would be in neither of the two.
  setWatched(job.id, true);
  try {
    await addCopy(job, `${job.title} (from another tab)`);
    await readAnew(job.id);
  } finally {
    setWatched(job.id, watched);
  }
}

/** Adds a new job to this browser; it is worked on here. */
export function addJob(job: Job): void {
  const file: JobFile = { job, history: EMPTY_HISTORY, revision: 0 };
  putFile(file);
  void takeWork(job.id, createListener(job.id));
  writer.create(file, createJob);
}

/** Adds a copy of a job under another title, with what was made of it and without its exports. @returns its id. */
export async function addCopy(job: Job, title: string): Promise<string> {
  const id = crypto.randomUUID();
  const now = new Date().toISOString();
  const copy: JobFile = {
    job: { ...job, id, title, createdAt: now, changedAt: now, exports: [], posts: [] },
    history: EMPTY_HISTORY,
    revision: 0,
  };
  await createJob(copy);
  writer.known(id, 0);
  putFile(copy);
  return id;
}

export async function removeJob(id: string): Promise<void> {
  await writer.settled(id);
  await deleteJob(id);
  forget(id);
  tellTabs({ type: 'deleted', id });
}

function getJobFile(id: string): JobFile {
  const file = useJobs.getState().files[id];
  if (!file) throw new RangeError(`there is no job ${id}`);
  return file;
}

/** Tells whether a job may be changed in this tab. */
export const canChangeJob = (id: string): boolean => useJobs.getState().watched[id] !== true;

/** A refused change is not told any longer. */
export const dismissRefusal = (id: string): void =>
  useJobs.setState(({ refusals }) => (id in refusals ? { refusals: without(refusals, id) } : {}));

/** Shows a change and stores it. */
function applyChange(before: JobFile, done: JobChange, next: Pick<JobFile, 'job' | 'history'>): void {
  const at = new Date().toISOString();
  const entry: Entry = { revision: before.revision + 1, at, done };
  const file = { ...next, revision: entry.revision, job: { ...next.job, changedAt: at } };
  putFile(file);
  if (done.op !== 'facts') dismissRefusal(file.job.id);
  writer.append(file, entry);
}

/**
 * Computes what a command changes; null where that is nothing, or where the job could not be opened again
 * with it, which every page of the job tells.
 */
function changeOrRefusal(job: Job, command: Command): EditChange | null {
  const { id, edit } = job;
  try {
    const change = computeChange(edit, command);
    const [fault] = change ? referenceFaults({ ...job, edit: change.after }) : [];
    if (fault !== undefined) throw new CommandRefused(fault);
    return change;
  } catch (error) {
    if (!(error instanceof CommandRefused)) throw error;
    const trouble: Trouble = { code: 'change-refused', values: { detail: error.problem } };
    useJobs.setState(({ refusals }) => ({ refusals: { ...refusals, [id]: trouble } }));
    return null;
  }
}

/**
 * Applies a command to a job and stores what it changed. Nothing happens where another tab works on the job.
 * @param joins steps with the same word shortly after each other are undone together.
 */
export function dispatch(id: string, command: Command, joins?: string): void {
  if (!canChangeJob(id)) return;
  const file = getJobFile(id);
  const { job, history } = file;
  const change = changeOrRefusal(job, command);
  if (!change) return;
  const now = Date.now();
  const joined =
    joins !== undefined &&
    lastStep?.id === id &&
    lastStep.joins === joins &&
    now - lastStep.time < JOIN_WITHIN &&
    history.past.length > 0;
  lastStep = joins === undefined ? null : { id, joins, time: now };
  const before = { edit: job.edit, history };
  const next = joined ? extendStep(before, change) : recordStep(before, change);
  const { command: name, delta } = change;
  const done: JobChange = { op: joined ? 'join' : 'step', command: name, delta };
  applyChange(file, done, { job: { ...job, edit: next.edit }, history: next.history });
}

/** Works on another clip of a job. It changes nothing that is made, so there is nothing to undo. */
export function setClip(id: string, clip: string): void {
  view(id, (job) => onClip(job, clip));
}

/** Works on another canvas of a job's clip; as with clips, there is nothing to undo. */
export function setCanvas(id: string, canvas: string): void {
  view(id, (job) => onCanvas(job, canvas));
}

function view(id: string, change: (job: Job) => Job): void {
  const file = getJobFile(id);
  const job = change(file.job);
  if (job === file.job || !canChangeJob(id)) return;
  const clip = activeClip(job.edit);
  applyChange(
    file,
    { op: 'view', clip: clip.id, canvas: activeCanvas(clip).id },
    { job, history: file.history },
  );
}

/** Changes what is not undone of a job: its name, its masters. */
function setFacts(id: string, change: (job: Job) => Partial<JobMetadata>): void {
  const file = useJobs.getState().files[id];
  if (!file || !canChangeJob(id)) return;
  const facts = change(file.job);
  const done = createMetadataChange(file.job, facts);
  if (done) applyChange(file, done, { job: { ...file.job, ...facts }, history: file.history });
}

/** Adds a master that a clip may take ranges from; the same file is added once. */
export function addMaster(id: string, master: Master): void {
  setFacts(id, ({ masters }) =>
    masters.some((other) => other.id === master.id) ? {} : { masters: [...masters, master] },
  );
}

export function renameJob(id: string, title: string): void {
  setFacts(id, () => ({ title }));
}

/** Remembers which rule sheets a job was judged by. */
export function markJudged(id: string, sheets: readonly RuleSheet[]): void {
  const marks = Object.fromEntries(sheets.map((sheet) => [sheet.outlet, toSheetMark(sheet)]));
  setFacts(id, ({ judged }) => ({ judged: { ...judged, ...marks } }));
}

/** Remembers that a master's found shots were taken, or left, once. */
export function markOffered(id: string, master: string): void {
  setFacts(id, ({ offered }) => (offered.includes(master) ? {} : { offered: [...offered, master] }));
}

function travel(
  id: string,
  op: 'undo' | 'redo',
  step: (versioned: EditWithHistory) => EditWithHistory,
): void {
  if (!canChangeJob(id)) return;
  const file = getJobFile(id);
  const { job, history } = file;
  lastStep = null;
  const next = step({ edit: job.edit, history });
  if (next.history === history) return;
  applyChange(file, { op }, { job: { ...job, edit: next.edit }, history: next.history });
}

export const undo = (id: string): void => travel(id, 'undo', undoStep);
export const redo = (id: string): void => travel(id, 'redo', redoStep);
