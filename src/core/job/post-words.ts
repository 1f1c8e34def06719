import { PLAIN_CONTENT, PLAIN_PERMISSIONS, type PostWords } from '../outlets/post-form';
import { chosenAudience } from './audience';
import type { Clip, GoneClip, OwnWords, Words } from './clip';

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

/** Collects what is written and chosen for a post, without its cover and captions. */
export function collectChosenWords(
  clip: Pick<Clip | GoneClip, 'words' | 'audience' | 'audiences'>,
  outlet: string,
  placement: string,
): Omit<PostWords, 'cover' | 'captions'> {
  const { title, description, tags, forChildren = null, longVideo = null, ...more } = postWords(clip, outlet);
  const {
    content = PLAIN_CONTENT,
    permissions = PLAIN_PERMISSIONS,
    collection = null,
    category = null,
  } = more;
  return {
    ...{ placement, title, description, tags, forChildren, longVideo },
    audience: chosenAudience(clip, `${outlet}/${placement}`),
    ...{ permissions, content, collection, category },
  };
}

/** Tells whether a post was given other words than are written now. */
export function isDifferent(sent: PostWords, chosen: Omit<PostWords, 'cover' | 'captions'>): boolean {
  return (Object.keys(chosen) as (keyof typeof chosen)[]).some(
    (key) => JSON.stringify(sent[key]) !== JSON.stringify(chosen[key]),
  );
}
