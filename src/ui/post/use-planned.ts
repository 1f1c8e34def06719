import { useMemo } from 'react';
import type { PlannedPost } from '@core/posting/gaps';
import { toTimestamp } from '@core/posting/when';
import type { DispatchedPost } from '@core/posting/post-order';
import { useFollowedPosts } from '@state/posting';

/** When a post goes out, or went; null for one that came to nothing. */
export function findPostTime({ state, when, upAt, madeAt }: DispatchedPost): number | null {
  if (state === 'up') return upAt ?? madeAt;
  if (['refused', 'failed', 'down'].includes(state)) return null;
  return when === null ? madeAt : toTimestamp(when);
}

/** All posts that are up or have a time, by account. */
export function usePlanned(): PlannedPost[] {
  const posts = useFollowedPosts((state) => state.posts);
  return useMemo(
    () =>
      Object.values(posts).flatMap((post) => {
        const moment = findPostTime(post);
        return moment === null ? [] : [{ id: post.id, account: post.account, moment }];
      }),
    [posts],
  );
}
