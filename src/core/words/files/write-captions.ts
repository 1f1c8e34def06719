import { z } from 'zod';
import { seconds } from '../../figures/bounded';
import { timeText } from './times';

/** A caption to be written: seconds of the clip. */
export const writtenCueSchema = z.object({ start: seconds(), end: seconds(), text: z.string() });
export type WrittenCue = z.infer<typeof writtenCueSchema>;

/** Formats that captions are written in. */
export const CAPTION_FORMS = ['srt', 'vtt'] as const;
export type CaptionForm = (typeof CAPTION_FORMS)[number];

const toLines = (text: string): string =>
  text
    .split(/\r\n|\r|\n/)
    .filter((line) => line.trim() !== '')
    .join('\n');

/** Captions as SubRip text, as players take it (common practice, no source): UTF-8, lines ended as on Windows. */
export function srtText(cues: readonly WrittenCue[]): string {
  return cues
    .map(
      ({ start, end, text }, i) =>
        `${i + 1}\n${timeText(start, ',')} --> ${timeText(end, ',')}\n${toLines(text).replaceAll('-->', '->')}\n`,
    )
    .join('\n')
    .replaceAll('\n', '\r\n');
}

/** Captions as WebVTT (W3C Candidate Recommendation, sections 4.1 and 4.2.1). */
export function vttText(cues: readonly WrittenCue[]): string {
  const escapeText = (text: string) =>
    text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
  const blocks = cues.map(
    ({ start, end, text }, i) =>
      `${i + 1}\n${timeText(start, '.')} --> ${timeText(end, '.')}\n${escapeText(toLines(text))}\n`,
  );
  return ['WEBVTT\n', ...blocks].join('\n');
}

export const captionText = (cues: readonly WrittenCue[], form: CaptionForm): string =>
  form === 'srt' ? srtText(cues) : vttText(cues);
