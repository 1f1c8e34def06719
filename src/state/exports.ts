import { create } from 'zustand';
import { checkJob, heldBack, planOfJob, workedOutBitRate } from '@core/check/check';
import type { ExportRecord } from '@core/job/records';
import { activeCanvas } from '@core/job/clip';
import { activeClip, type Job } from '@core/job/job';
import { exportFileName, signatureOf } from '@core/job/export-name';
import { troubleOf, troubleWords } from '@core/trouble/trouble';
import { deleteStored, storedFile } from '@media/storage';
import { makeExport, proveExport } from '@media/tasks';
import type { Progress } from '@media/worker-protocol';
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

/** Queues an export of the canvas of a job's clip as it is now. @returns false when a stop keeps it back. */
export function startExport(job: Job): boolean {
  const clip = activeClip(job.edit);
  if (heldBack(checkJob(job), clip.overrides, 'export').length > 0) return false;
  const canvas = activeCanvas(clip);
  const record: ExportRecord = {
    id: crypto.randomUUID(),
    clip: clip.id,
    placement: canvas.placement,
    width: canvas.width,
    height: canvas.height,
    fileName: exportFileName(job),
    startedAt: new Date().toISOString(),
    state: 'running',
    signature: signatureOf(job.edit),
    videoBits: clip.videoBits ?? workedOutBitRate(job).bits,
    error: null,
    bytes: null,
    tookSeconds: null,
    proof: null,
  };
  putExport(job.id, record);
  show(record.id, { jobId: job.id, stage: 'waiting', done: 0, total: 1, speed: null, left: null });
  const stop = new AbortController();
  stops.set(record.id, stop);
  queue = queue.then(() => run(job, record, stop.signal));
  return true;
}

async function run(job: Job, record: ExportRecord, signal: AbortSignal): Promise<void> {
  const plan = planOfJob(job);
  const request = { name: storedName(record.id), plan };
  const began = performance.now();
  const follow = (stage: Running['stage']) => {
    const from = performance.now();
    return ({ done, total }: Progress) => {
      const speed = (done * 1000) / (performance.now() - from);
      show(record.id, { jobId: job.id, stage, done, total, speed, left: (total - done) / speed });
    };
  };
  try {
    const { bytes } = await makeExport(
      { ...request, videoBits: record.videoBits },
      { signal, onProgress: follow('export') },
    );
    const made = { ...record, bytes, tookSeconds: (performance.now() - began) / 1000 };
    putExport(job.id, { ...made, state: 'reading-back' });
    const proof = await proveExport(request, { signal, onProgress: follow('read-back') });
    putExport(job.id, { ...made, state: 'done', proof });
  } catch (error) {
    await deleteStored('exports', request.name);
    const trouble = troubleOf(error, 'export-failed');
    const known = useJobs.getState().files[job.id] !== undefined;
    if (trouble.code === 'cancelled') {
      if (known) dropExport(job.id, record.id);
    } else {
      const { what, todo } = troubleWords(trouble);
      putExport(job.id, { ...record, state: 'failed', error: `${what} ${todo}` });
    }
  } finally {
    stops.delete(record.id);
    useExports.setState(({ running }) => {
      const { [record.id]: _ended, ...rest } = running;
      return { running: rest };
    });
  }
}

function show(exportId: string, running: Running): void {
  useExports.setState((state) => ({ running: { ...state.running, [exportId]: running } }));
}

/** Stops an export; nothing of it stays. */
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
