import { z } from 'zod';
import { audienceSchema } from './audience';

/** Longest cover, in characters of base 64: three quarters as many bytes. */
const MOST_COVER = 8_000_000;

/** What the page sends an outlet once the file is up. */
export const postFormSchema = z.object({
  /** The last part of the upload's address. */
  upload: z.string().regex(/^[0-9a-f]{32}$/),
  placement: z.string().max(40),
  title: z.string().max(500),
  description: z.string().max(5000),
  tags: z.array(z.string().max(60)).max(40),
  audience: audienceSchema,
  /** Whether the clip is made for children; null where nothing was said. */
  forChildren: z.boolean().nullable().default(null),
  /** The address of the long video that it came from. */
  longVideo: z.string().max(2000).nullable().default(null),
  /** The still that is shown before it plays, a JPEG in base 64; null for its first frame. */
  cover: z
    .string()
    .max(MOST_COVER)
    .regex(/^[A-Za-z0-9+/]*={0,2}$/)
    .nullable()
    .default(null),
});
export type PostForm = z.infer<typeof postFormSchema>;

/** What the outlet answers. */
export const postAnswerSchema = z.discriminatedUnion('state', [
  z.object({
    state: z.literal('accepted'),
    /** Of the same server, from its root. */
    page: z.string().regex(/^\/outlets\/[\w./-]+$/),
  }),
  z.object({ state: z.literal('refused'), reasons: z.array(z.string()).min(1) }),
]);
export type PostAnswer = z.infer<typeof postAnswerSchema>;

/** Where an outlet's stand-in takes uploads, from the server's root. */
export const uploadsPath = (outlet: string): string => `/outlets/${outlet}/api/uploads`;
/** Where it takes posts. */
export const postsPath = (outlet: string): string => `/outlets/${outlet}/api/posts`;
/** Its page. */
export const boardPath = (outlet: string): string => `/outlets/${outlet}/`;
/** The page of one post. */
export const postPage = (outlet: string, id: string): string => `${boardPath(outlet)}posts/${id}`;
/** The clip of one post. */
export const clipPath = (outlet: string, id: string): string => `${boardPath(outlet)}clips/${id}.mp4`;
/** The cover of one post. */
export const coverPath = (outlet: string, id: string): string => `${boardPath(outlet)}covers/${id}.jpg`;
