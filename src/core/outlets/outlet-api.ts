import { z } from 'zod';
import { boundedInt, boundedNumber, byteCount, MAX_SIDE_PIXELS } from '../figures/bounded';
import { audienceSchema } from './audience';

/** Version of the outlet's interface, in its own list of abilities. */
export const CONTRACT = 1;

/** Scopes that an account can grant. */
export const SCOPES = ['read', 'post'] as const;
export type Scope = (typeof SCOPES)[number];

/** Abilities of an outlet beside taking a clip with its words: read from it, not assumed. */
export const abilitiesSchema = z.object({
  contract: z.literal(CONTRACT),
  outlet: z.string().regex(/^[a-z0-9-]{1,40}$/),
  name: z.string().min(1).max(60),
  /** Issuer of its authorization server (RFC 8414). */
  issuer: z.url(),
  /** Largest file that it takes, in bytes. */
  mostBytes: byteCount(1),
  placements: z.array(z.string()).min(1),
  /** Placements at which a clip can be its account's alone until it is published. */
  drafts: z.array(z.string()),
  /** It puts a clip up by itself at the time that it is told. */
  schedule: z.boolean(),
  covers: z.boolean(),
  /** Timed captions as WebVTT. */
  captions: z.boolean(),
  /** Comments, sharing and reuse may be allowed or not. */
  permissions: z.boolean(),
  /** It takes what is said of a clip's content. */
  content: z.boolean(),
  collections: z.boolean(),
  categories: z.array(z.object({ id: z.string(), name: z.string() })),
  /** A clip may be linked to the long video that it came from. */
  cards: z.boolean(),
  /** Long videos may be searched, to link a clip to one. */
  longVideos: z.boolean(),
  /** True when whoever posted can fetch what a viewer gets. */
  viewed: z.boolean(),
});
export type Abilities = z.infer<typeof abilitiesSchema>;

/** An address from an outlet's root: it begins with a slash, so that it leads to no other host. */
const fromRoot = z.string().max(300).startsWith('/');

/** Whose account it is. */
export const outletAccountSchema = z.object({
  id: z.string().min(1).max(100),
  name: z.string().min(1).max(100),
  kind: z.enum(['person', 'page']),
  /** A picture, from the outlet's root; null for none. */
  picture: fromRoot.nullable(),
});
export type OutletAccount = z.infer<typeof outletAccountSchema>;

/** File that a viewer gets. */
const viewedSchema = z.object({
  width: boundedInt(1, MAX_SIDE_PIXELS),
  height: boundedInt(1, MAX_SIDE_PIXELS),
  bytes: byteCount(1),
});

/** Where a post stands at its outlet. */
export const outletPostSchema = z.discriminatedUnion('state', [
  z.object({ id: z.string(), state: z.literal('processing'), share: boundedNumber(0, 1) }),
  z.object({
    id: z.string(),
    state: z.literal('up'),
    /** Its address, from the outlet's root. */
    page: fromRoot,
    audience: audienceSchema,
    viewed: viewedSchema.nullable(),
  }),
  z.object({ id: z.string(), state: z.literal('refused'), reasons: z.array(z.string()).min(1) }),
  /** The outlet could not process it; the same may be posted again. */
  z.object({ id: z.string(), state: z.literal('failed'), reason: z.string() }),
]);
export type OutletPost = z.infer<typeof outletPostSchema>;

/** Change of a post that is up. */
export const postChangeSchema = z.object({ audience: audienceSchema });

/** Why an outlet does nothing that it was asked for. */
const OUTLET_ERRORS = [
  'bad-request',
  'token',
  'scope',
  'no-placement',
  'no-upload',
  'partial-upload',
  'no-post',
  'key-used',
  'busy',
  'full',
  'down',
] as const;
export const outletErrorSchema = z.object({ error: z.enum(OUTLET_ERRORS), detail: z.string() });
export type OutletError = (typeof OUTLET_ERRORS)[number];

/** Header that makes a post one post, however often it is asked for (1 to 64 characters). */
export const KEY_HEADER = 'idempotency-key';

/** Addresses of an outlet's interface, from its root. */
export const OUTLET_API = {
  abilities: '/api/abilities',
  account: '/api/account',
  uploads: '/api/uploads',
  posts: '/api/posts',
  post: (id: string): string => `/api/posts/${id}`,
  viewed: (id: string): string => `/api/posts/${id}/viewed`,
  collections: '/api/collections',
  longVideos: '/api/long-videos',
} as const;
