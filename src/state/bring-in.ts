import { create } from 'zustand';
import { type Demo, demoSchema } from '@core/job/demo';
import { type Job, mainMaster, newJob } from '@core/job/job';
import type { Shot } from '@core/cut/shot';
import type { Master } from '@core/master/master';
import { troubleOf, type Trouble, TroubleError } from '@core/trouble/trouble';
import { storedFile } from '@media/store/storage';
import { bringInFile } from '@media/worker/tasks';
import type { Progress } from '@media/worker/worker-protocol';
import { addJob, addMaster, useJobs } from './jobs';

interface BringInState {
  /** The file on its way in, or null. */
  fileName: string | null;
  progress: Progress | null;
  trouble: Trouble | null;
  /** The file that the trouble is about. */
  refused: File | null;
  /** A job that has the same file already, and the one that was made now. */
  twin: { title: string; id: string } | null;
  demo: Demo | null;
}

export const useBringIn = create<BringInState>(() => ({
  fileName: null,
  progress: null,
  trouble: null,
  refused: null,
  twin: null,
  demo: null,
}));

/** The folder of the demo, from the server's root. */
const DEMO = '/demo/';

/** Address of a file of the demo. */
export const demoAddress = (file: string): string => DEMO + file;

/** Id of the demo's job, so that it is there once. */
export const DEMO_JOB = 'kite-day';

let stop: AbortController | null = null;

/** Brings a person's file in and makes a job of it. @returns the job's id, or null when it failed or was cancelled. */
export function bringIn(file: File): Promise<string | null> {
  return attempt(file, null, (master) => {
    const twin = Object.values(useJobs.getState().files).find(
      (one) => mainMaster(one.job).fingerprint === master.fingerprint,
    );
    if (twin) useBringIn.setState({ twin: { title: twin.job.title, id: twin.job.id } });
    return makeJob(master, { id: crypto.randomUUID(), title: titleOf(file.name, twin !== undefined) });
  });
}

/** Takes a lost master's bytes in again. Only the same file is taken. */
export function bringBack(job: Job, master: Master, file: File): Promise<string | null> {
  return attempt(file, master, () => job.id);
}

/** Brings a further master into a job. @returns its id, or null when it failed or was cancelled. */
export function addMasterFile(job: Job, file: File): Promise<string | null> {
  return attempt(file, null, (master) => {
    addMaster(job.id, master);
    return master.id;
  });
}

/** Opens the demo's job, made from the film that ships. */
export async function openDemo(): Promise<string | null> {
  const known = useJobs.getState().files[DEMO_JOB];
  if (known && (await hasBytes(mainMaster(known.job)))) return DEMO_JOB;
  const demo = await loadDemo();
  if (!demo) return null;
  const file = await fetchDemoFile(demo).catch((error: unknown) => {
    useBringIn.setState({ trouble: troubleOf(error, 'server-down', { outlet: 'The server with the demo' }) });
    return null;
  });
  if (!file) return null;
  return attempt(file, known ? mainMaster(known.job) : null, (master) => {
    if (known) return DEMO_JOB;
    const { title, framings, words } = demo;
    const shots = demo.shots.map((shot, i): Shot => ({
      ...shot,
      master: master.id,
      start: i === 0 ? null : { kind: 'set', confidence: 1, frames: 0 },
      live: null,
    }));
    return makeJob(master, { id: DEMO_JOB, title, shots, framings, words });
  });
}

/** Reads what ships with the demo, for the list to show before it is opened. */
export async function loadDemo(): Promise<Demo | null> {
  const known = useBringIn.getState().demo;
  if (known) return known;
  try {
    const demo = demoSchema.parse(await (await fetch(demoAddress('kite-day.json'))).json());
    useBringIn.setState({ demo });
    return demo;
  } catch {
    // Without its server the app still works on its own jobs; the list then offers no demo.
    return null;
  }
}

async function fetchDemoFile(demo: Demo): Promise<File> {
  const response = await fetch(demoAddress(demo.file));
  if (!response.ok) throw new TroubleError('server-down', { outlet: 'The server with the demo' });
  return new File([await response.blob()], demo.file, { type: 'video/mp4' });
}

export function cancelBringIn(): void {
  stop?.abort();
}

export function dismissBringIn(): void {
  useBringIn.setState({ trouble: null, refused: null, twin: null });
}

/** The first master of a job whose bytes this browser no longer has, or null. */
export async function missingMaster(job: Job): Promise<Master | null> {
  for (const master of job.masters) if (!(await hasBytes(master))) return master;
  return null;
}

/** Whether a master's bytes are still in this browser. */
async function hasBytes(master: Master): Promise<boolean> {
  return (await storedFile('masters', master.fingerprint)) !== null;
}

async function attempt(
  file: File,
  wanted: Master | null,
  make: (master: Master) => string,
): Promise<string | null> {
  stop?.abort();
  const mine = (stop = new AbortController());
  useBringIn.setState({ fileName: file.name, progress: null, trouble: null, refused: null, twin: null });
  try {
    const request = wanted ? { file, wanted } : { file };
    const onProgress = (progress: Progress) => useBringIn.setState({ progress });
    return make(await bringInFile(request, { signal: mine.signal, onProgress }));
  } catch (error) {
    const trouble = troubleOf(error, 'bring-in-failed', { file: file.name });
    if (trouble.code !== 'cancelled') useBringIn.setState({ trouble, refused: file });
    return null;
  } finally {
    if (stop === mine) useBringIn.setState({ fileName: null, progress: null });
  }
}

type Start = Omit<Parameters<typeof newJob>[0], 'now' | 'master'>;

function makeJob(master: Master, start: Start): string {
  const job = newJob({ ...start, master, now: new Date().toISOString() });
  addJob(job);
  return job.id;
}

function titleOf(fileName: string, again: boolean): string {
  const bare =
    fileName
      .replace(/\.[^.]+$/, '')
      .replace(/[_-]+/g, ' ')
      .trim() || 'Untitled';
  return again ? `${bare} (again)` : bare;
}
