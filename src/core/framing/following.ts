import { z } from 'zod';
import { boundedNumber, frameCount, frameIndex, measure } from '../figures/bounded';

/** From one place, if that can be, to close on its heels. */
const STILLNESS = ['place', 'calm', 'near', 'close'] as const;
export type Stillness = (typeof STILLNESS)[number];

const followOptionsSchema = z.object({
  still: z.enum(STILLNESS),
  /** The share of the window's height that the subject fills, 0…1; null: the zoom is held. */
  fills: boundedNumber(0.1, 0.95).nullable(),
  /** Canvas pixels for each master pixel that the zoom may come to. */
  mostEnlarged: boundedNumber(1, 8),
  /** Where it sits in the window, 0…1 across and down; null: the middle, with head room for people. */
  seat: z.object({ x: boundedNumber(0, 1), y: boundedNumber(0, 1) }).nullable(),
  /** Room in front of what moves: how far from the middle it sits, as a share of the window's width. */
  lead: boundedNumber(0, 0.3),
});
export type FollowOptions = z.infer<typeof followOptionsSchema>;

export const DEFAULT_FOLLOW_OPTIONS: FollowOptions = {
  still: 'calm',
  fills: null,
  mostEnlarged: 2.5,
  seat: null,
  lead: 0.08,
};

/** A subject that is followed: somewhere it is, so that it is found again however subjects are numbered. */
const followedSchema = z.object({
  /** At the master's own rate. */
  frame: frameIndex(),
  /** 0…1 of the upright picture. */
  x: measure(),
  y: measure(),
});
export type FollowedPlace = z.infer<typeof followedSchema>;

/** Why moments need a look. */
const DOUBTS = ['unseen', 'unsure', 'apart', 'outside'] as const;

const doubtSchema = z.object({
  /** Frames of the source, half-open. */
  in: frameIndex(),
  out: frameCount(),
  why: z.enum(DOUBTS),
});
export type Doubt = z.infer<typeof doubtSchema>;

/** Where what is followed is looked at: its eyes, or its middle. */
export const seenPlaceSchema = z.object({
  /** Of the source. */
  frame: frameIndex(),
  /** 0…1 of the live area. */
  x: measure(),
  y: measure(),
});
export type SeenPlace = z.infer<typeof seenPlaceSchema>;

/** Options that a framing was found by, and notes on it. */
export const followingSchema = z.object({
  /** The one that is preferred first. */
  subjects: z.array(followedSchema).min(1),
  wishes: followOptionsSchema,
  /** Where the subjects are, about once a second: a window does not always have them at its focus. */
  places: z.array(seenPlaceSchema),
  /** Moments that need a look, in their order. */
  doubts: z.array(doubtSchema),
  /** Canvases that the path cannot serve: they need a framing by themselves. */
  unserved: z.array(z.string()),
});
export type FollowOrigin = z.infer<typeof followingSchema>;
