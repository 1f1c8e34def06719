import { clipName } from '@core/job/clip';
import { activeClip, type Job } from '@core/job/job';
import { type Trouble, toTrouble } from '@core/trouble/trouble';
import type { CaptionFile } from '@core/words/files/caption-file';
import { type CaptionForm, captionText, type WrittenCue } from '@core/words/files/write-captions';
import { readCaptions } from '@media/worker/tasks';

/** Largest file that is read, in bytes: captions of a long film have a few hundred kilobytes. */
const MAX_BYTES = 8_000_000;

/** A file of captions that was read, or why it could not be. */
export type OpenCaptions = { fileName: string; file: CaptionFile } | { trouble: Trouble };

/** Reads a file of captions by what is in it, whatever its name says. */
export async function openCaptions(file: File): Promise<OpenCaptions> {
  if (file.size > MAX_BYTES) {
    const detail = `it has ${Math.round(file.size / 1e6)} MB, and captions have at most ${MAX_BYTES / 1e6}`;
    return { trouble: { code: 'not-captions', values: { file: file.name, detail } } };
  }
  try {
    const read = await readCaptions({ bytes: new Uint8Array(await file.arrayBuffer()) });
    if (read.cues.length > 0) return { fileName: file.name, file: read };
    const detail = 'nothing in it has a start and an end';
    return { trouble: { code: 'not-captions', values: { file: file.name, detail } } };
  } catch (error) {
    return { trouble: toTrouble(error, 'not-captions', { file: file.name }) };
  }
}

/** Captions as a file. @param base of its name, without ending. */
export function captionsFile(cues: readonly WrittenCue[], form: CaptionForm, base: string): File {
  const type = form === 'srt' ? 'application/x-subrip' : 'text/vtt';
  return new File([captionText(cues, form)], `${base}.${form}`, { type });
}

/** A name for the captions of the clip that is worked on. */
export const captionsName = ({ edit }: Job): string =>
  clipName(activeClip(edit))
    .replace(/[^\p{Letter}\p{Number}]+/gu, '-')
    .toLowerCase() || 'captions';
