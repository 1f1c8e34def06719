import type { Words } from '../../job/clip';
import type { Fix } from '../fix';

/** Cuts a title off where the outlet does. */
export const shortenTitle: Fix<{
  /** Characters. */
  limit: number;
  words: Words;
}> = {
  label: ({ limit }) => `Shorten to ${limit} characters`,
  command: ({ limit, words }) => {
    const title = [...words.title.trim()].slice(0, limit).join('').trim();
    return { type: 'set-words', words: { ...words, title } };
  },
};
