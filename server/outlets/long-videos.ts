/** Long videos that are at the stand-ins from the beginning; made up. */
const VIDEOS = [
  { id: 'kite-day-whole', title: 'Kite Day at Windle Bay, the whole day', seconds: 2714 },
  { id: 'first-kite', title: 'How to build a first kite', seconds: 913 },
  { id: 'line-and-wind', title: 'Line, wind and knots', seconds: 1402 },
];

/** Long videos with all words of a search in their titles. @param origin of the server. */
export function matching(
  search: string,
  origin: string,
): { title: string; address: string; seconds: number }[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  return VIDEOS.filter(({ title }) => words.every((word) => title.toLowerCase().includes(word))).map(
    ({ id, title, seconds }) => ({ title, seconds, address: `${origin}/outlets/longshelf/videos/${id}` }),
  );
}
