import { activeCanvas, type Edit, type Job } from './job';

/** Longest part that the title takes of a file name, in characters. */
const LONGEST = 60;

/** A name that says job, placement and size: `kite-day_verrow-short_1080x1920.mp4`. */
export function exportFileName(job: Pick<Job, 'title' | 'edit'>): string {
  const { placement, width, height } = activeCanvas(job.edit);
  const title = job.title
    .normalize('NFKD')
    .replace(/[^\p{Letter}\p{Number}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, LONGEST);
  return `${title || 'clip'}_${placement.replace('/', '-')}_${width}x${height}.mp4`;
}

/** What the picture and sound of an export depend on, as text: two edits with the same make the same clip. */
export function signatureOf(edit: Edit): string {
  const { cut, shots, framings, videoBits } = edit;
  return JSON.stringify([cut, shots, framings, activeCanvas(edit), videoBits]);
}
