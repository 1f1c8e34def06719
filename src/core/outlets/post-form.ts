import { z } from 'zod';
import { type Audience, audienceSchema } from './audience';

/** Longest cover, in characters of base 64: three quarters as many bytes. */
const MAX_COVER = 8_000_000;
/** Longest captions, in UTF-16 units: as many and as long as a clip can hold, with their times. */
const MAX_CAPTIONS_UNITS = 6_000_000;
/** Longest request with a form, in bytes. */
export const MAX_FORM_BYTES = 24_000_000;

/**
 * Longest words of a post, in UTF-16 units. Outlets count characters as people see them, of which one may be more than
 * ten units: what an outlet takes must not be held back by these.
 */
export const MAX_WORDS_UNITS = { title: 5000, description: 100_000, tag: 1000 } as const;
/** Most tags of a post, whatever its outlet takes. */
const MAX_TAGS = 500;
/** Tags without their mark, as they are stored and sent. */
export const tagsSchema = z.array(z.string().max(MAX_WORDS_UNITS.tag)).max(MAX_TAGS);

/** Permissions of viewers on a post. */
export const permissionsSchema = z.object({
  comments: z.boolean(),
  sharing: z.boolean(),
  reuse: z.boolean(),
});
export type Permissions = z.infer<typeof permissionsSchema>;
/** Where nothing was chosen. */
export const PLAIN_PERMISSIONS: Permissions = { comments: true, sharing: true, reuse: false };

/** Statements on a clip's content; where none was made, neither is true. */
export const contentSchema = z.object({
  /** Somebody pays for it, or gave something for it. */
  paid: z.boolean(),
  /** It shows people or places that a computer made, and that could be taken for real. */
  synthetic: z.boolean(),
});
export const PLAIN_CONTENT: z.infer<typeof contentSchema> = { paid: false, synthetic: false };

/** Words of a post, sent beside the file. */
export const postWordsSchema = z.object({
  placement: z.string().max(40),
  title: z.string().max(MAX_WORDS_UNITS.title),
  description: z.string().max(MAX_WORDS_UNITS.description),
  tags: tagsSchema,
  audience: audienceSchema,
  /** True when the clip is made for children; null where it was not stated. */
  forChildren: z.boolean().nullable().default(null),
  /** The address of the long video that it came from. */
  longVideo: z.string().max(2000).nullable().default(null),
  permissions: permissionsSchema.default(PLAIN_PERMISSIONS),
  content: contentSchema.default(PLAIN_CONTENT),
  /** A name of a collection of the account, and the id of a category of the outlet; null for none. */
  collection: z.string().max(60).nullable().default(null),
  category: z.string().max(40).nullable().default(null),
  /** The still that is shown before it plays, a JPEG in base 64; null for its first frame. */
  cover: z
    .string()
    .max(MAX_COVER)
    .regex(/^[A-Za-z0-9+/]*={0,2}$/)
    .nullable()
    .default(null),
  /** Timed captions as WebVTT; null for none. */
  captions: z.string().max(MAX_CAPTIONS_UNITS).startsWith('WEBVTT').nullable().default(null),
});
export type PostWords = z.infer<typeof postWordsSchema>;

/** Form that an outlet is sent once the file is uploaded. */
export const postFormSchema = postWordsSchema.extend({
  /** The last part of the upload's address. */
  upload: z.string().regex(/^[\w-]{1,100}$/),
  /** When its audience sees it, until when it is its account's alone; null for at once. */
  publishAt: z.iso.datetime().nullable().default(null),
});
export type PostForm = z.infer<typeof postFormSchema>;

/** Who sees a post at a moment, in milliseconds. */
export const resolveAudience = ({ audience, publishAt }: PostForm, now: number): Audience =>
  publishAt !== null && Date.parse(publishAt) > now ? 'private' : audience;

/** Where an outlet's stand-in lies, from the server's root. */
export const outletRoot = (outlet: string): string => `/outlets/${outlet}`;
/** Its page. */
export const boardPath = (outlet: string): string => `${outletRoot(outlet)}/`;
/** The page of one post, from the stand-in's root. */
export const postPage = (id: string): string => `/posts/${id}`;
/** The clip of one post. */
export const clipPath = (outlet: string, id: string): string => `${boardPath(outlet)}clips/${id}.mp4`;
/** The cover of one post. */
export const coverPath = (outlet: string, id: string): string => `${boardPath(outlet)}covers/${id}.jpg`;
/** The captions of one post. */
export const captionsPath = (outlet: string, id: string): string => `${boardPath(outlet)}captions/${id}.vtt`;
