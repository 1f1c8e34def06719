import type { Clip, OwnWords, Words } from './clip';

/** The words that go with a post to an outlet: a clip's own, and what was written otherwise for that one. */
export function postWords({ words }: Pick<Clip, 'words'>, outlet: string): Words {
  const variant = words.variants?.[outlet];
  // The same object where nothing is otherwise, so that what was found of it stays found.
  return variant ? { ...words, ...variant } : words;
}

/** Words with something written otherwise for one outlet; null for no difference any more. */
export function withVariant(words: Words, outlet: string, change: Partial<OwnWords> | null): Words {
  const { [outlet]: own, ...others } = words.variants ?? {};
  const variants = change === null ? others : { ...others, [outlet]: { ...own, ...change } };
  const { variants: _old, ...rest } = words;
  return Object.keys(variants).length === 0 ? rest : { ...rest, variants };
}
