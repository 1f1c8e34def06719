import { z } from 'zod';
import { measure, seconds } from '../../figures/bounded';
import { captionNoteSchema } from './caption-note';

/** A cue of a file, mended. */
const fileCueSchema = z.object({
  /** Seconds of whatever the file is timed to. */
  start: seconds(),
  end: seconds(),
  text: z.string(),
  /** When each word begins, 0…1 of the cue, where the file says so. */
  words: z.array(seconds()).optional(),
  /** Where it stands in the file, and what was wrong with it. */
  line: measure(),
  notes: z.array(captionNoteSchema),
});
export type FileCue = z.infer<typeof fileCueSchema>;

/** Contents of a file of captions. */
export const captionFileSchema = z.object({
  format: z.enum(['vtt', 'srt']),
  cues: z.array(fileCueSchema),
  /** Notes on the file as a whole, and on what was left out. */
  notes: z.array(captionNoteSchema),
});
export type CaptionFile = z.infer<typeof captionFileSchema>;
