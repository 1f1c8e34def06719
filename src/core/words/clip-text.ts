import { z } from 'zod';
import { boundedNumber, frameIndex } from '../figures/bounded';
import { type FrameRate, rateValue } from '../time/frame-rate';
import { captionsSchema, NO_CAPTIONS } from './captions';
import { textBlockSchema } from './text-block';
import { colourSchema } from './text-style';

/** Longest end card, in seconds. */
export const MAX_CARD = 10;

/** A plain card after the picture. */
export const cardSchema = z.object({ seconds: boundedNumber(0.2, MAX_CARD), colour: colourSchema });
export type EndCard = z.infer<typeof cardSchema>;

/** Frames that an end card stays at a canvas's rate; 0 where there is none. */
export const cardFrames = (card: EndCard | null | undefined, rate: FrameRate): number =>
  card ? Math.max(1, Math.round(card.seconds * rateValue(rate))) : 0;

/** The still that is shown before a clip plays: a frame of a master, at its own rate. */
export const coverSchema = z.object({ master: z.string(), frame: frameIndex() });
export type Cover = z.infer<typeof coverSchema>;

/** The words on a clip's picture. */
export const clipTextSchema = z.object({
  /** In drawing order. */
  blocks: z.array(textBlockSchema),
  captions: captionsSchema,
  card: cardSchema.nullable(),
  /** The first frame where none was chosen. */
  cover: coverSchema.optional(),
});
export type ClipText = z.infer<typeof clipTextSchema>;

export const NO_TEXT: ClipText = { blocks: [], captions: NO_CAPTIONS, card: null };
