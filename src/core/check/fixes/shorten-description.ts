import type { Words } from '../../job/clip';
import { cutOff } from '../../outlets/characters';
import type { Fix } from '../fix';

/** Cuts a description off where the outlet does. */
export const shortenDescription: Fix<{
  /** Characters. */
  limit: number;
  words: Words;
}> = {
  safe: false,
  label: ({ limit }) => `Shorten to ${limit} characters`,
  command: ({ limit, words }) => ({
    type: 'set-words',
    words: { ...words, description: cutOff(words.description, limit).trimEnd() },
  }),
};
