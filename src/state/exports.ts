import { create } from 'zustand';
import { checkJob, heldBack, planOfJob, workedOutBitRate } from '@core/check/check';
import type { ExportRecord } from '@core/job/records';
import { activeCanvas } from '@core/job/clip';
import { activeClip, type Job, onCanvas } from '@core/job/job';
import { exportFileName, signatureOf } from '@core/job/export-name';
import { troubleOf, troubleWords } from '@core/trouble/trouble';
import { deleteStored, storedFile } from '@media/store/storage';
import { makeExport, proveExport } from '@media/worker/tasks';
import type { Progress } from '@media/worker/worker-protocol';
import { dropExport, putExport, useJobs } from './jobs';

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

export const useExports = create<{ running: Record<string, Running> }>(() => ({ running: {} }));

const stops = new Map<string, AbortController>();
let queue: Promise<unknown> = Promise.resolve();

/** Name of an export's bytes in the private file system. */
const storedName = (exportId: string): string => `${exportId}.mp4`;

/**
 * Queues one export of canvases of a job's clip as they are now: one that is held back is left out.
 * @returns the canvases that are made; none when a stop keeps each of them back.
 */
export function startExport(job: Job, canvases: readonly string[]): string[] {
  const clip = activeClip(job.edit);
  const works = canvases
    .map((canvas) => onCanvas(job, canvas))
    .filter((work) => heldBack(checkJob(work), clip.overrides, 'export').length === 0);
  if (works.length === 0) return [];
  const batch = works.map((work) => ({ work, record: recordOf(work) }));
  const stop = new AbortController();
  for (const { record } of batch) {
    putExport(job.id, record);
    show(record.id, { jobId: job.id, stage: 'waiting', done: 0, total: 1, speed: null, left: null });
    stops.set(record.id, stop);
  }
  queue = queue.then(() => run(job.id, batch, stop.signal));
  return works.map((work) => activeCanvas(activeClip(work.edit)).id);
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
    fileName: exportFileName(work),
    startedAt: new Date().toISOString(),
    state: 'running',
    signature: signatureOf(work.edit),
    videoBits: clip.videoBits ?? workedOutBitRate(work).bits,
    error: null,
    bytes: null,
    tookSeconds: null,
    proof: null,
  };
}

interface Made {
  work: Job;
  record: ExportRecord;
}

async function run(jobId: string, batch: readonly Made[], signal: AbortSignal): Promise<void> {
  const outputs = batch.map(({ work, record }) => ({
    name: storedName(record.id),
    plan: planOfJob(work),
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
  // Those whose bytes are whole: what fails later leaves them alone.
  const proved = new Set<string>();
  try {
    const { bytes } = await makeExport({ outputs }, { signal, onProgress: follow('export', batch) });
    const tookSeconds = (performance.now() - began) / 1000;
    const made = batch.map((one, i) => ({ ...one.record, bytes: bytes[i] ?? 0, tookSeconds }));
    for (const record of made) putExport(jobId, { ...record, state: 'reading-back' });
    for (const [i, record] of made.entries()) {
      const { name, plan } = outputs[i] as (typeof outputs)[number];
      const onProgress = follow('read-back', batch.slice(i, i + 1));
      const proof = await proveExport({ name, plan }, { signal, onProgress });
      putExport(jobId, { ...record, state: 'done', proof });
      proved.add(record.id);
    }
  } catch (error) {
    for (const { record } of batch) {
      if (!proved.has(record.id)) await giveUp(jobId, record, error);
    }
  } finally {
    for (const { record } of batch) stops.delete(record.id);
    const ids = new Set(batch.map(({ record }) => record.id));
    useExports.setState(({ running }) => ({
      running: Object.fromEntries(Object.entries(running).filter(([id]) => !ids.has(id))),
    }));
  }
}

/** Nothing stays of an export that was cancelled; one that failed says why. */
async function giveUp(jobId: string, record: ExportRecord, error: unknown): Promise<void> {
  await deleteStored('exports', storedName(record.id));
  const trouble = troubleOf(error, 'export-failed');
  const known = useJobs.getState().files[jobId] !== undefined;
  if (trouble.code === 'cancelled') {
    if (known) dropExport(jobId, record.id);
    return;
  }
  const { what, todo } = troubleWords(trouble);
  putExport(jobId, { ...record, state: 'failed', error: `${what} ${todo}` });
}

function show(exportId: string, running: Running): void {
  useExports.setState((state) => ({ running: { ...state.running, [exportId]: running } }));
}

/** Stops an export and those that are made with it; nothing of them stays. */
export function cancelExport(exportId: string): void {
  stops.get(exportId)?.abort();
}

/** Deletes a finished or failed export, its record and its bytes. */
export async function deleteExport(jobId: string, exportId: string): Promise<void> {
  await deleteStored('exports', storedName(exportId));
  dropExport(jobId, exportId);
}

/** The finished file under the name that a person should see, or null when the browser evicted it. */
export async function exportedFile(record: ExportRecord): Promise<File | null> {
  const file = await storedFile('exports', storedName(record.id));
  return file ? new File([file], record.fileName, { type: 'video/mp4' }) : null;
}
