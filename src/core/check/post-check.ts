import { chosenAudience } from '../job/audience';
import { activeCanvas } from '../job/clip';
import { activeClip, findClip, type Job, onCanvas, onClip } from '../job/job';
import { postWords } from '../job/post-words';
import { type ExportRecord, isOut } from '../job/records';
import { computeSignature } from '../job/signature';
import { isFormatTaken } from '../rate/format';
import { listRequiredTags, findTarget } from '../outlets/outlets';
import type { Sheets } from '../outlets/rule-sheet';
import { listBlockingFindings } from './check';
import { checkPost } from './findings';
import type { Finding } from './finding';

/**
 * Lists the findings that block a post of an export: judged by its own clip's words and its own canvas,
 * whatever is worked on.
 */
export function postStops(job: Job, record: ExportRecord, sheets: Sheets): Finding[] {
  const clip = findClip(job.edit, record.clip);
  if (!clip) return [];
  const target = findTarget(sheets, record);
  const findings = checkPost({
    words: postWords(clip, target.sheet.outlet),
    audience: chosenAudience(clip, target.key),
    requiredTags: listRequiredTags(sheets),
    target,
  });
  const overrides = 'overrides' in clip ? clip.overrides : [];
  return listBlockingFindings(findings, { overrides, canvas: record.canvas }, 'post');
}

/** Tells whether an export shows its clip and canvas as they are now. */
export function isCurrent(job: Pick<Job, 'edit' | 'masters'>, record: ExportRecord): boolean {
  const clip = job.edit.clips.find((clip) => clip.id === record.clip);
  if (!clip?.canvases.some((canvas) => canvas.id === record.canvas)) return false;
  return record.signature === computeSignature(onCanvas(onClip(job, record.clip), record.canvas).edit);
}

/**
 * The export to post of the canvas being worked on, in a format that its outlet takes: one that shows it as it is now,
 * else the newest; or null.
 */
export function exportToPost(job: Job, sheets: Sheets): ExportRecord | null {
  const clip = activeClip(job.edit);
  const canvas = activeCanvas(clip);
  const { id, placement } = canvas;
  const taken = findTarget(sheets, canvas).placement;
  const done = job.exports.filter(
    (record) =>
      record.clip === clip.id &&
      record.canvas === id &&
      record.state === 'done' &&
      record.placement === placement &&
      isFormatTaken(taken, record.format),
  );
  return done.find((record) => isCurrent(job, record)) ?? done[0] ?? null;
}

/** The exports of the clip at hand that can go out now: ready, kept back by nothing, and neither up nor on their way. */
export function listReadyExports(job: Job, sheets: Sheets): ExportRecord[] {
  return activeClip(job.edit).canvases.flatMap(({ id }) => {
    const ready = exportToPost(onCanvas(job, id), sheets);
    if (!ready || postStops(job, ready, sheets).length > 0) return [];
    const [last] = job.posts.filter(({ exportId }) => exportId === ready.id);
    return last && isOut(last) ? [] : [ready];
  });
}
