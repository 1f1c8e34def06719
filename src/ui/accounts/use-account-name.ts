import { useCallback, useMemo } from 'react';
import { useAccounts } from '@state/posting';
import { useJobs } from '@state/job';

/** Names the account of a post: one that was removed by what was noted of the post. */
export function useAccountName(): (account: string, post: string) => string {
  const accounts = useAccounts((state) => state.accounts);
  const listed = useJobs((state) => state.listed);
  const noted = useMemo(
    () =>
      new Map(
        Object.values(listed).flatMap(({ posts }) => posts.map(({ id, account }) => [id, account] as const)),
      ),
    [listed],
  );
  return useCallback(
    (account, post) =>
      accounts?.find(({ id }) => id === account)?.account.name ??
      noted.get(post) ??
      'an account that was removed',
    [accounts, noted],
  );
}
