import type { Account, SignInFault } from '@core/posting/accounts';

/** Words for what became of a sign-in, and what to do. */
export const SIGN_IN_FAULTS: Record<SignInFault, { what: string; todo: string }> = {
  refused: {
    what: 'You were not signed in: the outlet says that it was refused.',
    todo: 'Nothing was changed. Sign in again if you did not mean that.',
  },
  stale: {
    what: 'The sign-in took too long, or was finished already.',
    todo: 'Nothing was changed. Start it again.',
  },
  'not-yours': {
    what: 'This sign-in was begun in another browser.',
    todo: 'Nobody was signed in. If you followed a link that somebody sent you, do not trust it.',
  },
  'mixed-up': {
    what: 'The answer came from another outlet than the one you went to.',
    todo: 'Nobody was signed in. Start again; if it happens once more, that outlet is not to be trusted.',
  },
  'not-verified': {
    what: 'The outlet’s answer could not be verified.',
    todo: 'Nobody was signed in. Start again.',
  },
  'outlet-down': {
    what: 'The outlet cannot be reached.',
    todo: 'Nothing was changed. Sign in again in a moment.',
  },
};

/** Says what keeps an account from being posted as; null for nothing. */
export function accountTrouble({ state, scopes }: Account): string | null {
  if (state === 'expired') return 'The sign-in has expired.';
  if (state === 'withdrawn') return 'What you allowed was taken back at the outlet.';
  return scopes.includes('post') ? null : 'You did not allow it to post.';
}
