import type { Words } from '../../job/clip';
import { cutOff } from '../../outlets/characters';
import type { Fix } from '../fix';

/** Cuts a title or a description off where the outlet does. */
export const shortenWords: Fix<{
  part: 'title' | 'description';
  /** Characters. */
  limit: number;
  words: Words;
}> = {
  safe: false,
  label: ({ limit }) => `Shorten to ${limit} characters`,
  command: ({ part, limit, words }) => ({
    type: 'set-words',
    words: { ...words, [part]: cutOff(words[part].trim(), limit).trim() },
  }),
};
