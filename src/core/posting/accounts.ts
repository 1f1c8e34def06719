import { z } from 'zod';
import { seconds } from '../figures/bounded';
import { randomIdSchema } from '../figures/random-id';
import { outletAccountSchema, SCOPES } from '../outlets/outlet-api';

/** Where the server takes what it posts, from its root. */
export const POSTING_PATH = '/posting/api';
/** Accounts at outlets. */
export const ACCOUNTS = `${POSTING_PATH}/accounts`;
export const accountPath = (id: string): string => `${ACCOUNTS}/${id}`;
export const accountPicturePath = (id: string): string => `${accountPath(id)}/picture`;

/**
 * Address of an outlet's abilities; also of an account's there, and of long videos that it may link to:
 * `?search=WORDS`.
 */
export const abilitiesPath = (outlet: string): string => `${POSTING_PATH}/outlets/${outlet}/abilities`;
export const collectionsPath = (id: string): string => `${accountPath(id)}/collections`;
export const longVideosPath = (id: string): string => `${accountPath(id)}/long-videos`;
export const collectionsSchema = z.object({ collections: z.array(z.string().max(100)) });
export const longVideosSchema = z.object({
  videos: z.array(z.object({ title: z.string(), address: z.url(), seconds: seconds() })),
});
/** A long video that a clip may be linked to. */
export type LongVideo = z.infer<typeof longVideosSchema>['videos'][number];
/** Begins a sign-in: answers where to go. */
export const SIGN_INS = `${POSTING_PATH}/sign-ins`;
/** Where outlets send people back to after it. */
export const SIGN_IN_BACK = '/posting/back';
/** The app's own page of accounts: it is come back to after a sign-in. */
export const ACCOUNTS_PAGE = '/accounts';

/**
 * How an account stands: good; expired, so that its person signs in again; or withdrawn, since what it allowed was taken
 * back at the outlet.
 */
const ACCOUNT_STATES = ['good', 'expired', 'withdrawn'] as const;

/** An account at an outlet that this browser may post as. */
export const accountSchema = z.object({
  /** Ours; `account.id` is the outlet's. */
  id: randomIdSchema,
  outlet: z.string(),
  account: outletAccountSchema,
  scopes: z.array(z.enum(SCOPES)),
  state: z.enum(ACCOUNT_STATES),
});
export type Account = z.infer<typeof accountSchema>;
export const accountsSchema = z.object({ accounts: z.array(accountSchema) });

/** Tells whether something can be posted as an account. */
export const canPost = ({ state, scopes }: Account): boolean => state === 'good' && scopes.includes('post');

/** Tells whether something can be read as an account. */
export const canRead = ({ state, scopes }: Account): boolean => state === 'good' && scopes.includes('read');

/** A page of this app, and no other address: what a sign-in comes back to. */
const ownPageSchema = z
  .string()
  .max(300)
  .regex(/^\/(?![/\\])[\w\-./%?=&]*$/, { error: 'not a page of this app' });

/** Request that begins a sign-in. */
export const signInSchema = z.object({ outlet: z.string().max(40), back: ownPageSchema });
export const signInAnswerSchema = z.object({ go: z.url() });

/** Why a sign-in came to nothing; each has words of its own. */
const SIGN_IN_FAULTS = ['refused', 'stale', 'not-yours', 'mixed-up', 'not-verified', 'outlet-down'] as const;
export const signInFaultSchema = z.enum(SIGN_IN_FAULTS);
export type SignInFault = z.infer<typeof signInFaultSchema>;
