import { targetOf } from '../outlets/outlets';
import type { Sheets } from '../outlets/rule-sheet';
import { PLAIN_ENCODING } from '../rate/encoding';
import { type FormatId, formatFor, FORMATS } from '../rate/format';
import { activeCanvas, clipName } from './clip';
import { activeClip, type Job } from './job';

/** Longest part that the title takes of a file name, in characters. */
const LONGEST = 60;

/** A name that says clip, placement and size: `kite-day_verrow-short_1080x1920.mp4`. */
export function exportFileName(job: Pick<Job, 'edit'>, sheets: Sheets): string {
  const clip = activeClip(job.edit);
  const { placement, width, height } = activeCanvas(clip);
  const title = clipName(clip)
    .normalize('NFKD')
    .replace(/[^\p{Letter}\p{Number}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, LONGEST);
  return `${title || 'clip'}_${(placement ?? 'own').replace('/', '-')}_${width}x${height}.${FORMATS[formatOf(job, sheets)].extension}`;
}

/** The format that an export of the canvas at hand is made as. */
function formatOf({ edit }: Pick<Job, 'edit'>, sheets: Sheets): FormatId {
  const canvas = activeCanvas(activeClip(edit));
  const { format } = canvas.encoding ?? PLAIN_ENCODING;
  return format ?? formatFor(targetOf(sheets, canvas).placement);
}
