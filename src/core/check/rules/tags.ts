import { judgeTags } from '../../outlets/limits/tags';
import { countCharacters } from '../../outlets/characters';
import { postRule, outcome } from '../rule';

interface Count {
  tags: number;
  limit: number;
}
interface LongTagValues {
  /** With its mark. */
  tag: string;
  characters: number;
  limit: number;
}
const figures = ({ tags, limit }: Count): string => `${tags} tags, limit ${limit} tags`;

/** How many tags there are, and how long each is. */
export const tagsRule = postRule({
  name: 'Tags',
  reads: ['words', 'target'],
  outlet: true,
  outcomes: {
    'too-many': outcome<Count>(
      ({ tags, limit }, { label }) => `There are ${tags} tags; ${label} takes ${limit}.`,
      figures,
    ),
    'too-long': outcome<LongTagValues>(
      ({ tag, characters, limit }, { label }) =>
        `${tag} has ${characters} characters; ${label} takes tags of ${limit} characters.`,
      ({ characters, limit }) => `${characters} characters, limit ${limit} characters`,
    ),
    within: outcome<Count>(({ tags, limit }) => `${tags} of ${limit} tags.`, figures),
  },
  check({ words, target }) {
    const { most, characters: longest } = target.placement.words.tags;
    const broken = judgeTags(words.tags, target.placement);
    if (broken !== null && broken !== 'too-many') {
      const { tooLong: long } = broken;
      const values = { tag: `#${long}`, characters: countCharacters(long), limit: longest };
      return { severity: 'stop', code: 'too-long', values };
    }
    const values = { tags: words.tags.length, limit: most };
    return broken === 'too-many'
      ? { severity: 'stop', code: 'too-many', values }
      : { severity: 'pass', code: 'within', values };
  },
});
