import { z } from 'zod';
import { measure } from '../../figures/bounded';

/** Words of what was found wrong in a file of captions, or left out of it. */
export const NOTES = {
  encoding: 'The file is not UTF-8: it was read as {detail}.',
  mark: 'The file begins with a byte order mark.',
  replaced: 'Bytes that are no characters were replaced by “\uFFFD”.',
  number: 'The number is missing or wrong: cues are numbered by their order.',
  comma: 'The time is written in a way that this format does not have: it was read as {detail}.',
  'time-unclear': 'The time “{detail}” cannot be read: the cue follows the one before it.',
  negative: 'The time lies before the start: it was set to 0.',
  backward: 'The end lies before the start: the two were exchanged.',
  instant: 'The cue had no length: it lasts {detail} s now.',
  order: 'The cue began before the one above it: it was moved to its place.',
  overlap: 'The cue ended after the next one began: it ends where that begins now.',
  together: 'It began with the cue before it: their words are one cue now.',
  'blank-missing': 'There was no empty line before the cue.',
  'blank-inside': 'There was an empty line inside the cue: its words were kept together.',
  tags: 'Marks of style or place were left out: {detail}.',
  empty: 'The cue had no words: it was left out.',
  long: 'The cue had more words than one can hold: it was divided.',
  comment: 'A note or a style was left out: {detail}.',
  outside: 'Words outside any cue were left out: “{detail}”.',
  many: 'Only the first {detail} cues were taken.',
  beyond: 'The cue lies outside the clip: it was left out.',
} as const;
export type NoteCode = keyof typeof NOTES;

/** Note on something that was mended or left out, and where. */
export const captionNoteSchema = z.object({
  code: z.enum(Object.keys(NOTES) as [NoteCode, ...NoteCode[]]),
  /** Of the file, from 1 on. */
  line: measure(),
  detail: z.string(),
});
export type CaptionNote = z.infer<typeof captionNoteSchema>;

export const noteWords = ({ code, detail }: CaptionNote): string => NOTES[code].replace('{detail}', detail);
