import type { Words } from '../../job/clip';
import { cutOff } from '../../outlets/characters';
import type { Fix } from '../fix';

/** Cuts a title off where the outlet does. */
export const shortenTitle: Fix<{
  /** Characters. */
  limit: number;
  words: Words;
}> = {
  safe: false,
  label: ({ limit }) => `Shorten to ${limit} characters`,
  command: ({ limit, words }) => ({
    type: 'set-words',
    words: { ...words, title: cutOff(words.title.trim(), limit).trim() },
  }),
};
