import type { Fix } from '../fix';

/** Puts a tag before the others. */
export const addTag: Fix<{
  /** Without their marks; those that are there already. */
  tag: string;
  tags: readonly string[];
}> = {
  safe: true,
  label: ({ tag }) => `Add #${tag}`,
  command: ({ tag, tags }) => ({ type: 'mend-words', words: { tags: [tag, ...tags] } }),
};
