import type { Fix } from '../fix';

/** Puts a tag before the others. */
export const addTag: Fix<{
  /** Without their marks; those that are there already. */
  tag: string;
  tags: readonly string[];
  outlet: string;
}> = {
  safe: true,
  label: ({ tag }) => `Add #${tag}`,
  command: ({ tag, tags, outlet }) => ({ type: 'mend-words', outlet, words: { tags: [tag, ...tags] } }),
};
