import type { Abilities } from './outlet-api';
import { PLAIN_CONTENT, PLAIN_PERMISSIONS, type PostWords } from './post-form';

/** Reduces the words of a post to what an outlet can take, by the abilities that it states. */
export const fitToAbilities = (words: PostWords, abilities: Abilities): PostWords => ({
  ...words,
  cover: abilities.covers ? words.cover : null,
  captions: abilities.captions ? words.captions : null,
  longVideo: abilities.cards ? words.longVideo : null,
  permissions: abilities.permissions ? words.permissions : PLAIN_PERMISSIONS,
  content: abilities.content ? words.content : PLAIN_CONTENT,
  collection: abilities.collections ? words.collection : null,
  category: abilities.categories.some(({ id }) => id === words.category) ? words.category : null,
});

/** Lists what is chosen for a post and does not go to an outlet, in words. */
export function listLeftOut(
  { cover, captions, card }: { cover: boolean; captions: boolean; card: boolean },
  abilities: Pick<Abilities, 'covers' | 'captions' | 'cards'>,
): string[] {
  return [
    cover && !abilities.covers && 'the cover',
    captions && !abilities.captions && 'the captions as a file',
    card && !abilities.cards && 'the link to the long video',
  ].filter((one): one is string => one !== false);
}
