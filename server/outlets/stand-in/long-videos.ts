import type { LongVideo } from '../../../src/core/posting/accounts';
import type { StandInVideo } from '../outlet';

/** Finds long videos with all words of a search in their titles. @param root of the outlet's stand-in, with its origin. */
export function findVideos(videos: readonly StandInVideo[], search: string, root: string): LongVideo[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  return videos
    .filter(({ title }) => words.every((word) => title.toLowerCase().includes(word)))
    .map(({ id, title, seconds }) => ({ title, seconds, address: `${root}/videos/${id}` }));
}
