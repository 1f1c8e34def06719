import { activeCanvas, clipName } from './clip';
import { activeClip, type Edit, type Job } from './job';

/** Longest part that the title takes of a file name, in characters. */
const LONGEST = 60;

/** A name that says clip, placement and size: `kite-day_verrow-short_1080x1920.mp4`. */
export function exportFileName(job: Pick<Job, 'edit'>): string {
  const clip = activeClip(job.edit);
  const { placement, width, height } = activeCanvas(clip);
  const title = clipName(clip)
    .normalize('NFKD')
    .replace(/[^\p{Letter}\p{Number}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, LONGEST);
  return `${title || 'clip'}_${(placement ?? 'own').replace('/', '-')}_${width}x${height}.mp4`;
}

/** What the picture and sound of an export depend on, as text: two edits with the same make the same clip. */
export function signatureOf(edit: Edit): string {
  const { shots, framings, repairs } = edit;
  const clip = activeClip(edit);
  const spans = shots.map(({ id, master, in: first, out, live }) => [id, master, first, out, live]);
  return JSON.stringify([clip.id, clip.cut, spans, framings, repairs, activeCanvas(clip), clip.videoBits]);
}
