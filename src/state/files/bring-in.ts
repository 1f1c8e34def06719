import { create } from 'zustand';
import { type Demo, demoSchema } from '@core/job/demo';
import { type Job, newJob } from '@core/job/job';
import type { Shot } from '@core/cut/shot';
import type { Master } from '@core/master/master';
import { toTrouble, type Trouble } from '@core/trouble/trouble';
import type { BringInRequest } from '@media/read/bring-in-task';
import { storedFile } from '@media/store/storage';
import { bringInFile } from '@media/worker/tasks';
import type { Progress } from '@media/worker/worker-protocol';
import { forgetMaster, isUsed } from './delete-job';
import { addJob, addMaster, sheetsNow, useJobs } from '../job';
import { getPass, runPassAgain } from '../master';
import { askBytes, askJson, type ServerName, serverTrouble } from '../server';
import { awaitOutcome } from '../task';

interface BringInState {
  /** The file on its way in, or null. */
  fileName: string | null;
  progress: Progress | null;
  trouble: Trouble | null;
  /** The file that the trouble is about. */
  refused: File | null;
  /** Brings that file in again with another sound track, or null for silence. @returns as the first attempt does. */
  again: ((sound: number | null) => Promise<string | null>) | null;
  /** A job that has the same file already, and the one that was made now. */
  twin: { title: string; id: string } | null;
  demo: Demo | null;
}

export const useBringIn = create<BringInState>(() => ({
  fileName: null,
  progress: null,
  trouble: null,
  refused: null,
  again: null,
  twin: null,
  demo: null,
}));

/** How the server with the demo is called in words. */
const DEMO_SERVER: ServerName = { who: 'The server with the demo', errand: 'demo' };

/** The folder of the demo, from the server's root. */
const DEMO = '/demo/';

/** Address of a file of the demo. */
export const demoAddress = (file: string): string => DEMO + file;

/** Id of the demo's job, so that it is there once. */
export const DEMO_JOB = 'kite-day';

let stop: AbortController | null = null;

/** Brings a person's file in and makes a job of it. @returns the job's id, or null when it failed or was cancelled. */
export function bringIn(file: File): Promise<string | null> {
  return attempt({ file }, (master) => {
    const twin = Object.values(useJobs.getState().listed).find(
      ({ head }) => head.masters[0]?.fingerprint === master.fingerprint,
    )?.head;
    if (twin) useBringIn.setState({ twin: { title: twin.title, id: twin.id } });
    return makeJob(master, { id: crypto.randomUUID(), title: toTitle(file.name, twin !== undefined) });
  });
}

/** Takes a lost master's bytes in again. Only the same file is taken. */
export function bringBack(job: Job, master: Master, file: File): Promise<string | null> {
  return attempt({ file, wanted: master, sound: master.soundTrack }, () => {
    // A look that failed for want of the bytes is taken up again.
    if (getPass(master.fingerprint) === null) runPassAgain(master);
    return job.id;
  });
}

/** Brings a further master into a job. @returns its id, or null when it failed or was cancelled. */
export function addMasterFile(job: Job, file: File): Promise<string | null> {
  return attempt({ file }, (master) => {
    addMaster(job.id, master);
    return master.id;
  });
}

/** Opens the demo's job, made from the film that ships. */
export async function openDemo(): Promise<string | null> {
  const [known] = useJobs.getState().listed[DEMO_JOB]?.head.masters ?? [];
  if (known && (await hasBytes(known))) return DEMO_JOB;
  const demo = await loadDemo();
  if (!demo) return null;
  const file = await fetchDemoFile(demo);
  if (!file) return null;
  return attempt({ file, ...(known ? { wanted: known } : {}) }, (master) => {
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
    const demo = await askJson(DEMO_SERVER, demoAddress('kite-day.json'), demoSchema);
    useBringIn.setState({ demo });
    return demo;
  } catch {
    // Without its server the app still works on its own jobs; the list then offers no demo.
    return null;
  }
}

async function fetchDemoFile(demo: Demo): Promise<File | null> {
  try {
    const film = await askBytes(DEMO_SERVER, demoAddress(demo.file));
    return new File([film], demo.file, { type: 'video/mp4' });
  } catch (error) {
    useBringIn.setState({ trouble: serverTrouble(DEMO_SERVER, error) });
    return null;
  }
}

export function cancelBringIn(): void {
  stop?.abort();
}

export function dismissBringIn(): void {
  useBringIn.setState({ trouble: null, refused: null, again: null, twin: null });
}

/** The first master of a job whose bytes this browser no longer has, or null. */
export async function missingMaster(job: Job): Promise<Master | null> {
  for (const master of job.masters) if (!(await hasBytes(master))) return master;
  return null;
}

/** Tells whether a master's bytes are still in this browser. */
async function hasBytes(master: Pick<Master, 'fingerprint'>): Promise<boolean> {
  return (await storedFile('masters', master.fingerprint)) !== null;
}

async function attempt(request: BringInRequest, make: (master: Master) => string): Promise<string | null> {
  const { file } = request;
  stop?.abort();
  const mine = (stop = new AbortController());
  useBringIn.setState({
    ...{ fileName: file.name, progress: null, trouble: null, refused: null, again: null, twin: null },
  });
  let fresh: Master | null = null;
  const outcome = await awaitOutcome(
    {
      async run(signal) {
        const onProgress = (progress: Progress) => useBringIn.setState({ progress });
        const came = await bringInFile(request, { signal, onProgress });
        if (came.fresh) fresh = came.master;
        return came.master;
      },
      // Cancelled when all was done: its bytes go again, unless a job has them by now.
      clean: async () => {
        if (fresh && !isUsed(fresh.fingerprint)) await forgetMaster(fresh.fingerprint);
      },
      trouble: (error) => toTrouble(error, 'bring-in-failed', { file: file.name }),
    },
    mine.signal,
  );
  if (stop === mine) useBringIn.setState({ fileName: null, progress: null });
  if (outcome.state === 'done') {
    // Another tab that was bringing the same file in may have taken its bytes back.
    const isThere = fresh !== null || (await hasBytes(outcome.result));
    return isThere ? make(outcome.result) : attempt(request, make);
  }
  if (outcome.state === 'failed' && stop === mine) {
    const again = (sound: number | null) => attempt({ ...request, sound }, make);
    useBringIn.setState({ trouble: outcome.trouble, refused: file, again });
  }
  return null;
}

type Start = Omit<Parameters<typeof newJob>[0], 'now' | 'master' | 'sheets'>;

function makeJob(master: Master, start: Start): string {
  const job = newJob({ ...start, master, sheets: sheetsNow(), now: new Date().toISOString() });
  addJob(job);
  return job.id;
}

function toTitle(fileName: string, again: boolean): string {
  const bare =
    fileName
      .replace(/\.[^.]+$/, '')
      .replace(/[_-]+/g, ' ')
      .trim() || 'Untitled';
  return again ? `${bare} (again)` : bare;
}
