import { z } from 'zod';
import { boundedInt, MAX_COUNT } from '../figures/bounded';
import { cutSchema } from '../cut/cut';
import { type Canvas, canvasSchema } from '../layout/canvas';
import { audienceSchema } from '../outlets/audience';
import { contentSchema, permissionsSchema } from '../outlets/post-form';
import { clipTextSchema } from '../words/clip-text';

const ownWordsSchema = z.object({
  title: z.string(),
  description: z.string(),
  /** Without the leading mark. */
  tags: z.array(z.string()),
});
export type OwnWords = z.infer<typeof ownWordsSchema>;

/** The words that go with a post. */
export const wordsSchema = ownWordsSchema.extend({
  /** True when the clip is made for children; not there until it was stated. */
  forChildren: z.boolean().optional(),
  /** The address of the long video that it came from. */
  longVideo: z.string().optional(),
  /** Words that people will search for. */
  keyPhrase: z.string().max(100).optional(),
  /** Permissions of viewers; not there until something was chosen. */
  permissions: permissionsSchema.optional(),
  /** Statements on its content; not there until one was made. */
  content: contentSchema.optional(),
  /** A name of a collection, and the id of a category of the outlet. */
  collection: z.string().optional(),
  category: z.string().optional(),
  /** Words of its own for some outlets. */
  variants: z.record(z.string(), ownWordsSchema.partial()).optional(),
});
export type Words = z.infer<typeof wordsSchema>;

/** Number of a clip among the parts of a longer cut: "2 of 4". */
const partSchema = z.object({ number: boundedInt(1, MAX_COUNT), of: boundedInt(1, MAX_COUNT) });

/** A stop of one rule on one canvas that a person let pass, and why. */
export const overrideSchema = z.object({ rule: z.string(), canvas: z.string(), reason: z.string() });
export type CheckOverride = z.infer<typeof overrideSchema>;

/** Clip of a job: a cut with its canvases and what goes out with it. Framings belong to the job's shots. */
export const clipSchema = z.object({
  id: z.string(),
  name: z.string(),
  part: partSchema.nullable(),
  cut: cutSchema,
  canvases: z.array(canvasSchema).min(1),
  /** The canvas being worked on. */
  canvas: z.string(),
  words: wordsSchema,
  /** The words on its picture; not there where there are none. */
  text: clipTextSchema.optional(),
  audience: audienceSchema,
  /** Who may see it where something else was chosen for one placement, by its key. */
  audiences: z.record(z.string(), audienceSchema).optional(),
  /** Stops that the person overrode by name. */
  overrides: z.array(overrideSchema),
});
export type Clip = z.infer<typeof clipSchema>;

/** The canvas that a clip is being worked on for. */
export function activeCanvas(clip: Clip): Canvas {
  const canvas = clip.canvases.find((canvas) => canvas.id === clip.canvas) ?? clip.canvases[0];
  if (!canvas) throw new RangeError('a clip has at least one canvas');
  return canvas;
}

/** A clip's name with its part: `Kite Day, 2 of 4`. */
export function clipName({ name, part }: Pick<Clip, 'name' | 'part'>): string {
  return part ? `${name}, ${part.number} of ${part.of}` : name;
}

/** Part of a removed clip that stays, for the exports that were made of it. */
export const goneClipSchema = clipSchema.pick({
  id: true,
  name: true,
  part: true,
  words: true,
  audience: true,
  audiences: true,
});
export type GoneClip = z.infer<typeof goneClipSchema>;

export const toGoneClip = ({ id, name, part, words, audience, audiences }: Clip): GoneClip => ({
  id,
  name,
  part,
  words,
  audience,
  ...(audiences && { audiences }),
});
