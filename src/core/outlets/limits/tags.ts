import { z } from 'zod';
import { boundedInt, boundedCount, MAX_COUNT } from '../../figures/bounded';
import { countCharacters } from '../characters';
import { numberField } from './field';
import { declareLimit } from './limit';

const tagsSchema = z.object({
  most: boundedCount(),
  characters: boundedInt(1, MAX_COUNT),
  /** Without this tag the clip is not treated as what the placement is for; without its mark. */
  required: z
    .string()
    .regex(/^[^\s#]+$/, { error: 'A tag is one word without its mark.' })
    .nullable(),
});
interface OfTags {
  words: { tags: z.infer<typeof tagsSchema> };
}

/** Judges whether the tag that is required is there. @param tags without their marks. */
export const judgeRequiredTag = (
  tags: readonly string[],
  { words: { tags: limits } }: OfTags,
): 'missing' | null => (limits.required !== null && !hasTag(tags, limits.required) ? 'missing' : null);

/** Judges how many tags there are, and how long each is. @returns the first that is too long, or `too-many`. */
export function judgeTags(
  tags: readonly string[],
  { words: { tags: limits } }: OfTags,
): { tooLong: string } | 'too-many' | null {
  const tooLong = tags.find((tag) => countCharacters(tag) > limits.characters);
  if (tooLong !== undefined) return { tooLong };
  return tags.length > limits.most ? 'too-many' : null;
}

/** Tells whether a tag is among others; capitals make no difference. */
export const hasTag = (tags: readonly string[], tag: string): boolean =>
  tags.some((other) => other.toLowerCase() === tag.toLowerCase());

/** Limit on tags: their number, their length, and one that is required. */
export const tagsLimit = declareLimit({
  name: 'tags',
  shape: { words: { tags: tagsSchema } },
  plain: { words: { tags: { most: 100, characters: 100, required: null } } },
  section: 'Words',
  fields: [
    { path: 'words.tags.most', label: 'Most tags', as: numberField('') },
    { path: 'words.tags.characters', label: 'Longest tag', as: numberField('characters') },
    { path: 'words.tags.required', label: 'Required tag', as: { kind: 'text', optional: true } },
  ],
  refusePost({ tags }, placement) {
    const limits = placement.words.tags;
    if (judgeRequiredTag(tags, placement)) return `The tag #${limits.required} is missing.`;
    const broken = judgeTags(tags, placement);
    if (broken === 'too-many') return `There are ${tags.length} tags; at most ${limits.most} are taken.`;
    return broken && `The tag #${broken.tooLong} has over ${limits.characters} characters.`;
  },
});
