import { z } from 'zod';
import { fileNameSchema } from '../figures/file-name';
import {
  boundedNumber,
  byteCount,
  boundedCount,
  frameIndex,
  MAX_SIDE_PIXELS,
  measure,
  seconds,
  timestampMs,
} from '../figures/bounded';
import { randomIdSchema } from '../figures/random-id';
import { postWordsSchema } from '../outlets/post-form';
import { POSTING_PATH } from './accounts';
import { whenSchema } from './when';

/** Where files to post come in (tus), from the server's root. */
export const POSTING_UPLOADS = `${POSTING_PATH}/uploads`;
/** Posts of this browser. */
export const POSTED = `${POSTING_PATH}/posts`;
export const postedPath = (id: string): string => `${POSTED}/${id}`;
/** The same as server-sent events: each post as it changes. */
export const POSTED_EVENTS = `${POSTING_PATH}/events`;
/** Asks once more for what came to nothing, with other words where they are given. */
export const againPath = (id: string): string => `${postedPath(id)}/again`;
/** Changes who may see what is up. */
export const audiencePath = (id: string): string => `${postedPath(id)}/audience`;
/** Takes down what is up. */
export const takeDownPath = (id: string): string => `${postedPath(id)}/take-down`;
/** A frame as it was sent, or as a viewer gets it, as PNG: `?frame=N`. */
export const postedPicture = (id: string, kind: 'sent' | 'viewed', frame: number): string =>
  `${postedPath(id)}/pictures/${kind}?frame=${frame}`;

/** A post that the server is to make. */
export const postOrderSchema = z.object({
  /** Made by whoever asks: the same is one post. */
  id: randomIdSchema,
  /** The last part of the file's address here. */
  upload: randomIdSchema,
  fileName: fileNameSchema,
  outlet: z.string().max(40),
  /** Our id of the account. */
  account: randomIdSchema,
  words: postWordsSchema,
  /** Null for now. */
  when: whenSchema.nullable(),
});
export type PostOrder = z.infer<typeof postOrderSchema>;

/** Change of a post until its time, or after it failed. */
export const postEditSchema = postOrderSchema.pick({ words: true, when: true, account: true }).partial();
export type PostEdit = z.infer<typeof postEditSchema>;

/**
 * Where a post stands: it waits for its time or its turn, its file is sent, the outlet processes it, it is up, it was
 * refused, it came to nothing, it needs its person, its time went by while the server was off, or it was taken down.
 */
export const POSTED_STATES = [
  'waiting',
  'sending',
  'processing',
  'up',
  'refused',
  'failed',
  'held',
  'missed',
  'down',
] as const;

/** Reasons for which a post waits for its person. */
const HOLDS = ['expired', 'withdrawn', 'gone', 'scope'] as const;
/** Why a post waits before it is tried again. */
export const WAITS = ['down', 'busy', 'full', 'answer'] as const;

/** Comparison of what a viewer gets with what was sent. */
const comparedSchema = z.object({
  width: boundedNumber(0, MAX_SIDE_PIXELS),
  height: boundedNumber(0, MAX_SIDE_PIXELS),
  /** Size that was sent; not there in older ones. */
  sent: z
    .object({ width: boundedNumber(0, MAX_SIDE_PIXELS), height: boundedNumber(0, MAX_SIDE_PIXELS) })
    .optional(),
  bytes: byteCount(),
  /** How long it plays; not there in older ones. */
  seconds: seconds().optional(),
  frames: frameIndex(),
  /** Of luma, on average, and in the worst second. */
  ssim: measure(),
  worst: z.object({ second: seconds(), frame: frameIndex(), ssim: measure() }),
});
export type Comparison = z.infer<typeof comparedSchema>;

/** Shapes that differ by more than this share are not the same: sizes are rounded to even figures. */
const SAME_SHAPE = 0.02;

/** Tells whether an outlet shows another shape than it was sent: it cut off the edges, or added some. */
export const isReshaped = ({ width, height, sent }: Comparison): boolean =>
  sent !== undefined && Math.abs((width / height) * (sent.height / sent.width) - 1) > SAME_SHAPE;

/** A post as the server tells of it. */
export const postedSchema = postOrderSchema.extend({
  /** Rises with every change: what comes later may be older. */
  version: boundedCount(),
  state: z.enum(POSTED_STATES),
  /** Of the file. */
  bytes: byteCount(),
  sha256: z.string().nullable(),
  /** Bytes that came to the outlet so far. */
  sent: byteCount(),
  /** How far the outlet is, 0…1. */
  share: measure(),
  reasons: z.array(z.string()),
  hold: z.enum(HOLDS).nullable(),
  wait: z.object({ why: z.enum(WAITS), until: timestampMs() }).nullable(),
  /** True when the outlet has all of it already, and publishes it by itself at its time. */
  ahead: z.boolean().default(false),
  /** Its address at the outlet, from the outlet's root. */
  page: z.string().nullable(),
  compared: comparedSchema.nullable(),
  /** Milliseconds. */
  madeAt: timestampMs(),
  /** When it came up; null before. */
  upAt: timestampMs().nullable(),
});
export type DispatchedPost = z.infer<typeof postedSchema>;
export const postedListSchema = z.object({ posts: z.array(postedSchema) });

/** Tells whether a post goes on by itself. */
export const isUnderWay = ({ state }: Pick<DispatchedPost, 'state'>): boolean =>
  state === 'waiting' || state === 'sending' || state === 'processing';
