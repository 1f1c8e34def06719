import { create } from 'zustand';
import {
  checkJob,
  heldBack,
  isLookedAt,
  masterLengths,
  planOfJob,
  workedOutBitRate,
} from '@core/check/check';
import { triedOf } from '@core/check/size-trial';
import type { ExportRecord } from '@core/job/records';
import { activeCanvas } from '@core/job/clip';
import { activeClip, type Job, onCanvas, onClip } from '@core/job/job';
import { containerOf, exportFileName } from '@core/job/export-name';
import { signatureOf } from '@core/job/signature';
import { troubleOf, troubleWords } from '@core/trouble/trouble';
import { rangeStarts } from '@core/cut/cut';
import { isBeside, PLAIN_CANVAS_TEXT } from '@core/words/canvas-text';
import { writtenCues } from '@core/words/cue-list';
import { deleteStored, storedFile } from '@media/store/storage';
import { makeExport, proveExport } from '@media/worker/tasks';
import type { Progress } from '@media/worker/worker-protocol';
import { useJobs } from './jobs';
import { passOf, usePasses } from './passes';
import { dropExport, holdExports, putExport } from './records';
import { sheetsNow } from './sheets';
import { triedSizes } from './size-trials';
import { TaskQueue } from './task';

/** An export under way. */
export interface Running {
  jobId: string;
  stage: 'export' | 'read-back' | 'waiting';
  done: number;
  total: number;
  /** Frames a second, and seconds left; null while there is nothing to reckon from. */
  speed: number | null;
  left: number | null;
}

/** An export of canvases of one clip that was asked for before its masters were looked at. */
export interface Waiting {
  jobId: string;
  clip: string;
  canvases: readonly string[];
}

interface ExportsState {
  /** By export. */
  running: Record<string, Running>;
  waiting: readonly Waiting[];
}

export const useExports = create<ExportsState>(() => ({ running: {}, waiting: [] }));

/** Whether anything is being exported. */
export const isBusy = ({ running }: ExportsState): boolean => Object.keys(running).length > 0;

const queue = new TaskQueue();
/** By an export, the name of the task that makes it, with the others of its go. */
const goes = new Map<string, string>();

/** Name of an export's bytes in the private file system. */
export const storedName = (exportId: string): string => `${exportId}.mp4`;

/** One export of a go: the job as it was, and its record. */
interface Made {
  work: Job;
  record: ExportRecord;
}

/**
 * Queues one export of canvases of a job's clip: one that is held back is left out. Where a master was not looked at
 * yet the export waits for that, and is then made of the job as the look left it.
 * @returns the canvases that are made now; none when a stop keeps each of them back.
 */
export function startExport(job: Job, canvases: readonly string[]): string[] {
  if (isLookedAt(job, passOf)) return exportNow(job, canvases);
  const clip = activeClip(job.edit).id;
  const known = waitingOf(useExports.getState(), job.id, clip)?.canvases ?? [];
  stopWaiting(job.id, clip);
  const waits = { jobId: job.id, clip, canvases: [...new Set([...known, ...canvases])] };
  useExports.setState(({ waiting }) => ({ waiting: [...waiting, waits] }));
  return [];
}

/** What waits of a clip; each clip waits by itself. */
export const waitingOf = (
  { waiting }: Pick<ExportsState, 'waiting'>,
  jobId: string,
  clip: string,
): Waiting | null => waiting.find((waits) => waits.jobId === jobId && waits.clip === clip) ?? null;

/** Does not wait any longer for the look at a clip's masters. */
export function stopWaiting(jobId: string, clip: string): void {
  useExports.setState(({ waiting }) => ({
    waiting: waiting.filter((waits) => waits.jobId !== jobId || waits.clip !== clip),
  }));
}

/** What waited goes on once its masters were looked at; a job that is not here any more, or its clip, is let go. */
usePasses.subscribe(() => {
  for (const { jobId, clip, canvases } of useExports.getState().waiting) {
    const job = useJobs.getState().files[jobId]?.job;
    const there = job?.edit.clips.some((other) => other.id === clip);
    if (job && there && !isLookedAt(onClip(job, clip), passOf)) continue;
    stopWaiting(jobId, clip);
    if (job && there) exportNow(onClip(job, clip), canvases);
  }
});

/** As {@link startExport}, whether the masters were looked at or not. */
export function exportNow(job: Job, canvases: readonly string[]): string[] {
  stopWaiting(job.id, activeClip(job.edit).id);
  const works = canvases.map((canvas) => onCanvas(job, canvas)).filter(isFree);
  const batch = works.map((work) => ({ work, record: recordOf(work) }));
  if (batch.length > 0) void make(job.id, batch);
  return works.map((work) => activeCanvas(activeClip(work.edit)).id);
}

/** Whether nothing keeps back the export of the canvas that a job is working on. */
function isFree(work: Job): boolean {
  const { overrides, canvas } = activeClip(work.edit);
  const sizes = triedSizes();
  const findings = checkJob(work, {
    sheets: sheetsNow(),
    passOf,
    triedOf: (subject) => triedOf(sizes, subject),
  });
  return heldBack(findings, { overrides, canvas }, 'export').length === 0;
}

function recordOf(work: Job): ExportRecord {
  const clip = activeClip(work.edit);
  const { id, dye, placement, width, height } = activeCanvas(clip);
  return {
    id: crypto.randomUUID(),
    clip: clip.id,
    canvas: id,
    dye,
    placement,
    width,
    height,
    fileName: exportFileName(work, sheetsNow()),
    startedAt: new Date().toISOString(),
    state: 'running',
    signature: signatureOf(work.edit),
    videoBits: clip.videoBits ?? workedOutBitRate(work, sheetsNow()).bits,
    error: null,
    bytes: null,
    tookSeconds: null,
    proof: null,
    ...besideOf(work),
  };
}

/** The captions that go beside an export as files. */
function besideOf(work: Job): Pick<ExportRecord, 'captions'> {
  const { text, cut } = activeClip(work.edit);
  const canvas = activeCanvas(activeClip(work.edit));
  if (!text || !isBeside((canvas.text ?? PLAIN_CANVAS_TEXT).captions)) return {};
  const masters = masterLengths(work);
  const { rate } = canvas;
  const captions = writtenCues(text.captions.cues, {
    cut,
    starts: rangeStarts(cut, masters, rate),
    masters,
    rate,
  });
  return captions.length > 0 ? { captions } : {};
}

/** Makes the exports of a go, and settles their records, whatever becomes of it. */
async function make(jobId: string, batch: readonly Made[]): Promise<void> {
  const ids = batch.map(({ record }) => record.id);
  const name = ids.join();
  const letGo = holdExports(ids);
  // Those whose bytes are whole: what fails later leaves them alone.
  const proved = new Set<string>();
  for (const { record } of batch) {
    goes.set(record.id, name);
    show(record.id, { jobId, stage: 'waiting', done: 0, total: 1, speed: null, left: null });
    void putExport(jobId, record).catch(untold);
  }
  const outcome = await queue.add(name, {
    run: (signal) => run(jobId, batch, proved, signal),
    async clean() {
      for (const id of ids) if (!proved.has(id)) await deleteStored('exports', storedName(id));
    },
    trouble: (error) => troubleOf(error, 'export-failed', {}),
  });
  for (const { record } of batch) {
    goes.delete(record.id);
    if (proved.has(record.id) || outcome.state === 'done') continue;
    await settle(jobId, record, outcome).catch(untold);
  }
  letGo();
  const over = new Set(ids);
  useExports.setState(({ running }) => ({
    running: Object.fromEntries(Object.entries(running).filter(([id]) => !over.has(id))),
  }));
}

/** A record that could not be stored is still shown; the page says that it cannot save. */
const untold = (error: unknown): void => console.error('an export could not be written down', error);

/** Nothing stays of an export that was cancelled; one that failed says why. */
function settle(
  jobId: string,
  record: ExportRecord,
  outcome: Exclude<Awaited<ReturnType<typeof queue.add>>, { state: 'done' }>,
): Promise<void> {
  if (outcome.state === 'cancelled') return dropExport(jobId, record.id);
  const { what, todo } = troubleWords(outcome.trouble);
  return putExport(jobId, { ...record, state: 'failed', error: `${what} ${todo}` });
}

async function run(
  jobId: string,
  batch: readonly Made[],
  proved: Set<string>,
  signal: AbortSignal,
): Promise<void> {
  const outputs = batch.map(({ work, record }) => ({
    name: storedName(record.id),
    container: containerOf(work, sheetsNow()),
    plan: planOfJob(work, sheetsNow()),
    videoBits: record.videoBits,
  }));
  const began = performance.now();
  const follow = (stage: Running['stage'], records: readonly Made[]) => {
    const from = performance.now();
    return ({ done, total }: Progress) => {
      const speed = (done * 1000) / (performance.now() - from);
      const running = { jobId, stage, done, total, speed, left: (total - done) / speed };
      for (const { record } of records) show(record.id, running);
    };
  };
  const { bytes } = await makeExport({ outputs }, { signal, onProgress: follow('export', batch) });
  const tookSeconds = (performance.now() - began) / 1000;
  const made = batch.map((made, i) => ({ ...made.record, bytes: bytes[i] ?? 0, tookSeconds }));
  for (const record of made) await putExport(jobId, { ...record, state: 'reading-back' });
  for (const [i, record] of made.entries()) {
    const { name, plan } = outputs[i] as (typeof outputs)[number];
    const onProgress = follow('read-back', batch.slice(i, i + 1));
    const proof = await proveExport({ name, plan }, { signal, onProgress });
    proved.add(record.id);
    await putExport(jobId, { ...record, state: 'done', proof });
  }
}

function show(exportId: string, running: Running): void {
  useExports.setState((state) => ({ running: { ...state.running, [exportId]: running } }));
}

/** Stops an export and those that are made with it; nothing of them stays. */
export function cancelExport(exportId: string): void {
  queue.cancel(goes.get(exportId) ?? '');
}

/** Deletes a finished or failed export, its record and its bytes. */
export async function deleteExport(jobId: string, exportId: string): Promise<void> {
  await deleteStored('exports', storedName(exportId));
  await dropExport(jobId, exportId);
}

/** The finished file under the name that a person should see, or null when the browser evicted it. */
export async function exportedFile(record: ExportRecord): Promise<File | null> {
  const file = await storedFile('exports', storedName(record.id));
  return file ? new File([file], record.fileName, { type: 'video/mp4' }) : null;
}
