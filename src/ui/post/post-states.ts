import { isPosted, type PostRecord } from '@core/job/records';
import type { DispatchedPost } from '@core/posting/post-order';
import type { PostTime } from '@core/posting/when';
import type { Standing } from '../parts/mark';

/** A time as it is read. */
export const whenWords = ({ date, time, zone }: PostTime): string =>
  `${date} at ${time} (${zone.replaceAll('_', ' ')})`;

/** Words for why a post waits for its person, and what to do. */
export const HOLDS: Record<NonNullable<DispatchedPost['hold']>, string> = {
  expired: 'The sign-in has expired. Sign in again below, then try again: file and words are kept.',
  withdrawn:
    'What you allowed was taken back at the outlet. Sign in again below, then try again: file and words are kept.',
  gone: 'Its account was removed. Choose another below, then try again: file and words are kept.',
  scope: 'You did not allow this account to post. Sign in again below and allow it, then try again.',
};

/** How a post stands, in a word or two, and by its mark. */
export const POSTED_WORDS: Record<DispatchedPost['state'], string> = {
  ...{ up: 'Up', waiting: 'Waits', sending: 'On its way', processing: 'Being processed', down: 'Taken down' },
  ...{ refused: 'Refused', failed: 'Came to nothing', held: 'Needs you', missed: 'Missed its time' },
};
export const POSTED_STANDINGS: Record<DispatchedPost['state'], Standing> = {
  ...{ up: 'pass', waiting: 'open', sending: 'open', processing: 'open', down: 'open' },
  ...{ refused: 'stop', failed: 'stop', held: 'stop', missed: 'stop' },
};

const STATES: Record<PostRecord['state'], (outlet: string, title: string) => string> = {
  accepted: (outlet, title) => `“${title}” is up on ${outlet}.`,
  up: (outlet, title) => `“${title}” is up on ${outlet}.`,
  waiting: (outlet, title) => `“${title}” waits to go to ${outlet}.`,
  sending: (outlet, title) => `“${title}” is on its way to ${outlet}.`,
  processing: (outlet, title) => `${outlet} processes “${title}”.`,
  refused: (outlet, title) => `${outlet} refused “${title}”.`,
  failed: (outlet, title) => `“${title}” did not get to ${outlet}.`,
  held: (outlet, title) => `“${title}” cannot go to ${outlet} without you.`,
  missed: (outlet, title) => `“${title}” missed its time at ${outlet}.`,
  down: (outlet, title) => `“${title}” was taken down from ${outlet}.`,
};

const STOPPED: readonly PostRecord['state'][] = ['refused', 'failed', 'held', 'missed'];

const AUDIENCES: Partial<Record<string, string>> = {
  private: 'Only you see it.',
  unlisted: 'Whoever has the link sees it.',
  friends: 'Your friends there see it.',
  public: 'Everybody sees it.',
};

/** Title of a post's card. */
export function postTitle(post: PostRecord, outlet: string): { standing: Standing; title: string } {
  const isUp = isPosted(post);
  const seen = isUp ? ` ${AUDIENCES[post.audience] ?? ''}` : '';
  return {
    standing: isUp ? 'pass' : STOPPED.includes(post.state) ? 'stop' : 'open',
    title: `${STATES[post.state](outlet, post.title)}${seen}`,
  };
}
