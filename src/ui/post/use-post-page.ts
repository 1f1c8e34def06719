import { useRouter } from 'expo-router';
import { useCallback } from 'react';
import { useJobs } from '@state/job';

/** Opens the post page of the job that a post is of, at its clip and canvas; null where the job is not here any more. */
export function usePostPage(): (post: string) => (() => void) | null {
  const router = useRouter();
  const listed = useJobs((state) => state.listed);
  return useCallback(
    (id) => {
      const job = Object.values(listed).find(({ posts }) => posts.some((post) => post.id === id));
      const post = job?.posts.find((known) => known.id === id);
      if (!job || !post) return null;
      const canvas = job.exports.find((made) => made.id === post.exportId)?.canvas ?? '';
      return () => router.push(`/job/${job.head.id}/post?clip=${post.clip}&canvas=${canvas}`);
    },
    [listed, router],
  );
}
