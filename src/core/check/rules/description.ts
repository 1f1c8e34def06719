import { judgeDescription } from '../../outlets/limits/description';
import { countCharacters, cutOff } from '../../outlets/characters';
import { postRule, outcome } from '../rule';

interface Characters {
  characters: number;
  limit: number;
}
interface VisibleValues extends Characters {
  /** Part that is shown before "more". */
  seen: string;
}
const figures = ({ characters, limit }: Characters): string =>
  `${characters} characters, limit ${limit} characters`;

/** The description's length, and how much of it is seen. */
export const descriptionRule = postRule({
  name: 'Description',
  reads: ['words', 'target'],
  outlet: true,
  outcomes: {
    empty: outcome<Characters>(() => 'The post has no description.', figures),
    over: outcome<Characters>(
      ({ characters, limit }, { label }) =>
        `The description has ${characters} characters; ${label} takes ${limit}.`,
      figures,
    ),
    folded: outcome<VisibleValues>(
      ({ seen }, { label }) => `${label} shows only the beginning: "${seen}…" The rest is folded away.`,
      ({ characters, limit }) => `${characters} characters, seen ${limit} characters`,
    ),
    seen: outcome<Characters>(({ characters }) => `All ${characters} characters are seen.`, figures),
  },
  check({ words, target }) {
    const { most, seen } = target.placement.words.description;
    const length = countCharacters(words.description);
    if (length === 0) return { severity: 'note', code: 'empty', values: { characters: 0, limit: most } };
    if (judgeDescription(words.description, target.placement)) {
      const fix = {
        fix: 'shorten-words',
        values: { part: 'description', limit: most, text: words.description, outlet: target.sheet.outlet },
      } as const;
      return { severity: 'stop', code: 'over', values: { characters: length, limit: most }, fix };
    }
    if (length > seen) {
      const values = { characters: length, limit: seen, seen: cutOff(words.description, seen).trim() };
      return { severity: 'note', code: 'folded', values };
    }
    return { severity: 'pass', code: 'seen', values: { characters: length, limit: most } };
  },
});
