import { z } from 'zod';
import { boundedNumber } from '../figures/bounded';
import { DEFAULT_READING_LIMITS, readingLimitsSchema } from './reading-limits';
import { spansSchema } from './spans';
import { SEATS } from './text-art';
import { colourSchema, PLAIN_PLATE, PLAIN_STYLE, textStyleSchema } from './text-style';

/** Longest text of a cue, in UTF-16 units; what a file has more becomes a cue of its own. */
export const MAX_CUE_TEXT = 1000;
/** Most cues of a clip. */
export const MAX_CUES = 5000;

/** A caption: what is said, and the frames of the masters at which it is. */
export const cueSchema = z.object({
  id: z.string(),
  /** Its lines, parted by line feeds. */
  text: z.string().max(MAX_CUE_TEXT),
  spans: spansSchema,
  /** When each word begins, 0…1 of the cue, where that is known; else words are spread by their syllables. */
  words: z.array(boundedNumber(0, 1)).optional(),
});
export type Cue = z.infer<typeof cueSchema>;

/** The captions of a clip, and how they look where they are burnt in. */
export const captionsSchema = z.object({
  cues: z.array(cueSchema).max(MAX_CUES),
  style: textStyleSchema,
  /** The colour of the word that is being spoken; null where words are not marked. */
  spoken: colourSchema.nullable(),
  seat: z.enum(SEATS),
  limits: readingLimitsSchema,
});
export type Captions = z.infer<typeof captionsSchema>;

export const NO_CAPTIONS: Captions = {
  cues: [],
  style: { ...PLAIN_STYLE, size: 0.055, outline: null, plate: PLAIN_PLATE },
  spoken: null,
  seat: 'bottom',
  limits: DEFAULT_READING_LIMITS,
};

/** How captions go out: burnt into the picture, as files beside it, both, or not at all. */
export const CAPTION_WAYS = ['burnt', 'beside', 'both', 'none'] as const;
export type CaptionWay = (typeof CAPTION_WAYS)[number];
