import type { Words } from '../../job/clip';
import type { Fix } from '../fix';

/** Puts a tag before the others. */
export const addTag: Fix<{
  /** Without its mark. */
  tag: string;
  words: Words;
}> = {
  safe: true,
  label: ({ tag }) => `Add #${tag}`,
  command: ({ tag, words }) => ({ type: 'set-words', words: { ...words, tags: [tag, ...words.tags] } }),
};
