import { Pace } from '@core/figures/pace';
import { TimeLeft } from '@core/figures/time-left';
import type { ExportRecord } from '@core/job/records';
import { storedFile } from '@media/store/storage';
import { makeExport, proveExport } from '@media/worker/tasks';
import type { Progress } from '@media/worker/worker-protocol';
import { tellDone } from './done-notice';
import { dropOrder, keepOrder, loadOrder, type ExportOrder, storedName } from './export-orders';
import { type ExportProgress, useExportQueue } from './export-running';
import { putExport } from '../job';
import { makeOnServer } from './render-server';

const time = new TimeLeft();

/** Seconds that exports of so many frames will take, once it is their turn; null where nothing was made yet. */
export const estimateSeconds = (frames: number): number | null => time.waiting(frames);

/** Running export, with what it was asked to be. */
interface RunningExport {
  record: ExportRecord;
  order: ExportOrder;
}

/** Whoever wants exports made. */
interface StopRequest {
  jobId: string;
  signal: AbortSignal;
  /** Shows where exports stand that are worked on together. */
  show: (exportIds: readonly string[], now: ExportProgress) => void;
  /** Gets those whose bytes are whole and read back. */
  proved: Set<string>;
}

/**
 * Makes exports together, or takes up what is there of them, and reads each back.
 * @throws TroubleError and whatever goes wrong; what is whole of them stays.
 */
export async function makeExports(records: readonly ExportRecord[], asker: StopRequest): Promise<void> {
  const { jobId } = asker;
  const batch: RunningExport[] = [];
  for (const record of records) {
    const order = await loadOrder(record.id);
    if (!order) throw new Error('what was asked for is gone');
    batch.push({ record, order });
  }
  const began = performance.now();
  const files = await Promise.all(batch.map(({ record }) => storedFile('exports', storedName(record.id))));
  // An earlier page may have come as far as to keep some of them.
  const missing = batch.filter((_, i) => !files[i]);
  if (missing.length > 0) await makeFiles(missing, asker);
  const tookSeconds = (performance.now() - began) / 1000;
  const made: RunningExport[] = [];
  for (const { record, order } of batch) {
    const bytes = (await storedFile('exports', storedName(record.id)))?.size ?? 0;
    const now = { ...record, bytes, tookSeconds: record.tookSeconds ?? tookSeconds };
    await putExport(jobId, { ...now, state: 'reading-back' });
    made.push({ record: now, order });
  }
  await readBack(made, asker);
}

/** Reads files back, one after another, and writes down what that proves. */
async function readBack(made: readonly RunningExport[], asker: StopRequest): Promise<void> {
  const { jobId, signal, proved } = asker;
  for (const [i, one] of made.entries()) {
    const { record, order } = one;
    const frames = countFrames(made.slice(i));
    const leftToProve: EstimateTimeLeft = (perFrame, done) => time.proving(perFrame, frames - done);
    const { plan, making } = order;
    const proof = await proveExport(
      { name: storedName(record.id), plan, making },
      { signal, onProgress: follow([one], 'read-back', leftToProve, asker) },
    );
    proved.add(record.id);
    await putExport(jobId, { ...record, state: 'done', proof });
    tellDone(record, Object.keys(useExportQueue.getState().running).length - i - 1);
    await dropOrder(record.id);
  }
}

/** Makes the files of a go: the server those that it was asked for, this browser all others. */
async function makeFiles(batch: readonly RunningExport[], asker: StopRequest): Promise<void> {
  const { jobId, signal, show } = asker;
  for (const one of batch) {
    const { record, order } = one;
    const { remote } = order;
    if (!remote) continue;
    const onExport = follow([one], 'export', leftToMake([one]), asker);
    await makeOnServer(storedName(record.id), remote, {
      signal,
      onBegun: (id) => keepOrder(record.id, { ...order, remote: { ...remote, id } }),
      onProgress: (progress) =>
        progress.stage === 'export'
          ? onExport(progress)
          : show([record.id], { jobId, ...progress, speed: null, left: null }),
    });
  }
  const own = batch.filter(({ order }) => !order.remote);
  if (own.length === 0) return;
  const outputs = own.map(({ record, order: { plan, making } }) => ({
    name: storedName(record.id),
    plan,
    making,
  }));
  await makeExport({ outputs }, { signal, onProgress: follow(own, 'export', leftToMake(own), asker) });
}

const countFrames = (batch: readonly RunningExport[]): number =>
  batch.reduce((sum, { order }) => sum + order.plan.frames, 0);

/** Seconds left of work, from seconds for a frame where they are known. */
type EstimateTimeLeft = (perFrame: number | null, done: number, total: number) => number | null;

/** Of files that are made together, and then read back. */
function leftToMake(batch: readonly RunningExport[]): EstimateTimeLeft {
  const frames = countFrames(batch);
  return (perFrame, done, total) => time.making(perFrame, total - done, frames);
}

/** Shows how far files are that are worked on together. */
function follow(
  batch: readonly RunningExport[],
  stage: 'export' | 'read-back',
  leftOf: EstimateTimeLeft,
  { jobId, show }: StopRequest,
) {
  const ids = batch.map(({ record }) => record.id);
  let pace = new Pace();
  return ({ stage: now, done, total }: Progress) => {
    if (now === 'held') {
      // What it waits is not what a frame takes.
      pace = new Pace();
      return show(ids, { jobId, stage: now, done, total, speed: null, left: null });
    }
    const perFrame = pace.at(performance.now() / 1000, done);
    const left = leftOf(perFrame, done, total);
    show(ids, { jobId, stage, done, total, speed: perFrame && 1 / perFrame, left });
  };
}
