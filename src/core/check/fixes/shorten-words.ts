import { cutOff } from '../../outlets/characters';
import type { Fix } from '../fix';

/** Cuts a title or a description off where the outlet does. */
export const shortenWords: Fix<{
  part: 'title' | 'description';
  /** Characters. */
  limit: number;
  /** Text of the words. */
  text: string;
  outlet: string;
}> = {
  safe: false,
  label: ({ limit }) => `Shorten to ${limit} characters`,
  command: ({ part, limit, text, outlet }) => ({
    type: 'mend-words',
    outlet,
    words: { [part]: cutOff(text.trim(), limit).trim() },
  }),
};
