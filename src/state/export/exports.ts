import { create } from 'zustand';
import { checkJob, listBlockingFindings, isAnalyzed, masterLengths } from '@core/check/check';
import { findTriedSize } from '@core/check/size-trial';
import type { ExportRecord } from '@core/job/records';
import { activeCanvas } from '@core/job/clip';
import { activeClip, type Job, onCanvas, onClip } from '@core/job/job';
import { exportFileName } from '@core/job/export-name';
import { computeSignature } from '@core/job/signature';
import { FORMATS } from '@core/rate/format';
import { hasOpenSize } from '@core/render/encode-settings';
import { rangeStarts } from '@core/cut/cut';
import { isBeside, PLAIN_CANVAS_TEXT } from '@core/words/canvas-text';
import { toWrittenCues } from '@core/words/cue-list';
import { storedFile } from '@media/store/storage';
import { forgetExport, keepOrder, type ExportOrder, storedName } from './export-orders';
import { chooseMaker, toOrder } from './export-order';
import { enqueue } from './export-queue';
import { dropExport, sheetsNow, useJobs } from '../job';
import { getPass, usePasses } from '../master';
import { namePattern } from '../file-names';
import { createCurrentAdvisor } from './found-trials';
import { listTriedSizes } from './size-trials';

/** An export of canvases of one clip that was asked for before its masters were looked at. */
export interface WaitingExport {
  jobId: string;
  clip: string;
  canvases: readonly string[];
}

interface WaitingState {
  waiting: readonly WaitingExport[];
}

/** Exports that wait for the look at their masters. */
export const useExports = create<WaitingState>(() => ({ waiting: [] }));

/**
 * Queues one export of canvases of a job's clip: one that is held back is left out. Where a master was not looked at
 * yet the export waits for that, and is then made of the job as the look left it.
 * @returns the canvases that are made now; none when a stop keeps each of them back.
 */
export function startExport(job: Job, canvases: readonly string[]): string[] {
  if (isAnalyzed(job, getPass)) return exportNow(job, canvases);
  const clip = activeClip(job.edit).id;
  const known = findWaiting(useExports.getState(), job.id, clip)?.canvases ?? [];
  stopWaiting(job.id, clip);
  const waits = { jobId: job.id, clip, canvases: [...new Set([...known, ...canvases])] };
  useExports.setState(({ waiting }) => ({ waiting: [...waiting, waits] }));
  return [];
}

/** Finds the waiting export of a clip; each clip waits by itself. */
export const findWaiting = (
  { waiting }: Pick<WaitingState, 'waiting'>,
  jobId: string,
  clip: string,
): WaitingExport | null => waiting.find((waits) => waits.jobId === jobId && waits.clip === clip) ?? null;

/** Does not wait any longer for the look at a clip's masters. */
export function stopWaiting(jobId: string, clip: string): void {
  useExports.setState(({ waiting }) => ({
    waiting: waiting.filter((waits) => waits.jobId !== jobId || waits.clip !== clip),
  }));
}

/**
 * Goes on with what waited once its masters were analysed; lets go of a job or clip that is not here any
 * more.
 */
usePasses.subscribe(() => {
  for (const { jobId, clip, canvases } of useExports.getState().waiting) {
    const job = useJobs.getState().files[jobId]?.job;
    const there = job?.edit.clips.some((other) => other.id === clip);
    if (job && there && !isAnalyzed(onClip(job, clip), getPass)) continue;
    stopWaiting(jobId, clip);
    if (job && there) exportNow(onClip(job, clip), canvases);
  }
});

/** As {@link startExport}, whether the masters were looked at or not. */
export function exportNow(job: Job, canvases: readonly string[]): string[] {
  stopWaiting(job.id, activeClip(job.edit).id);
  const works = canvases.map((canvas) => onCanvas(job, canvas)).filter(isFree);
  // What this browser makes of one clip is decoded once; the server makes each by itself.
  const here = works.filter((work) => chooseMaker(work) === 'browser');
  const gos = [here, ...works.filter((work) => chooseMaker(work) === 'server').map((work) => [work])];
  for (const go of gos) begin(job.id, go);
  return works.map((work) => activeCanvas(activeClip(work.edit)).id);
}

/** Writes down what is asked for, and queues it. */
function begin(jobId: string, works: readonly Job[]): void {
  const go = crypto.randomUUID();
  const made = works.map((work) => {
    const order = toOrder(work);
    return { order, record: toRecord(work, order, go) };
  });
  const orders = Promise.all(made.map(({ record, order }) => keepOrder(record.id, order)));
  enqueue(
    jobId,
    made.map(({ record }) => record),
    orders,
  );
}

/** Tells whether nothing blocks the export of the canvas that a job is working on. */
function isFree(work: Job): boolean {
  const { overrides, canvas } = activeClip(work.edit);
  const sizes = listTriedSizes();
  const advisedOf = createCurrentAdvisor();
  const findings = checkJob(work, {
    sheets: sheetsNow(),
    ...{ passOf: getPass, advisedOf },
    triedOf: (subject) => findTriedSize(sizes, subject, advisedOf),
  });
  return listBlockingFindings(findings, { overrides, canvas }, 'export').length === 0;
}

function toRecord(work: Job, { plan, making: { format, picture } }: ExportOrder, go: string): ExportRecord {
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
    fileName: exportFileName(work, { sheets: sheetsNow(), pattern: namePattern() }),
    startedAt: new Date().toISOString(),
    state: 'running',
    signature: computeSignature(work.edit),
    format,
    maker: chooseMaker(work),
    frames: plan.frames,
    go,
    videoBits: picture && !hasOpenSize(picture) ? picture.bits : 0,
    error: null,
    bytes: null,
    tookSeconds: null,
    proof: null,
    ...toCaptionFiles(work),
  };
}

/** The captions that go beside an export as files. */
function toCaptionFiles(work: Job): Pick<ExportRecord, 'captions'> {
  const { text, cut } = activeClip(work.edit);
  const canvas = activeCanvas(activeClip(work.edit));
  if (!text || !isBeside((canvas.text ?? PLAIN_CANVAS_TEXT).captions)) return {};
  const masters = masterLengths(work);
  const { rate } = canvas;
  const captions = toWrittenCues(text.captions.cues, {
    cut,
    starts: rangeStarts(cut, masters, rate),
    masters,
    rate,
  });
  return captions.length > 0 ? { captions } : {};
}

/** Deletes a finished or failed export, its record and its bytes. */
export async function deleteExport(jobId: string, exportId: string): Promise<void> {
  await forgetExport(exportId);
  await dropExport(jobId, exportId);
}

/** The finished file under the name that a person should see, or null when the browser evicted it. */
export async function loadExportedFile(record: ExportRecord): Promise<File | null> {
  const file = await storedFile('exports', storedName(record.id));
  return file ? new File([file], record.fileName, { type: FORMATS[record.format].type }) : null;
}
