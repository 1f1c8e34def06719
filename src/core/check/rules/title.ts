import { judgeTitle } from '../../outlets/limits/title';
import { countCharacters } from '../../outlets/characters';
import { postRule, outcome } from '../rule';

interface Characters {
  characters: number;
  limit: number;
}
const figures = ({ characters, limit }: Characters): string =>
  `${characters} characters, limit ${limit} characters`;

/** A title, and not longer than the outlet shows. */
export const titleRule = postRule({
  name: 'Title',
  reads: ['words', 'target'],
  outlet: true,
  outcomes: {
    missing: outcome<Characters>(
      () => 'The post has no title yet. Write one, the main words first.',
      figures,
    ),
    over: outcome<Characters>(
      ({ characters, limit }, { label }) =>
        `The title has ${characters} characters; ${label} shows ${limit}.`,
      figures,
    ),
    within: outcome<Characters>(({ characters, limit }) => `${characters} of ${limit} characters.`, figures),
  },
  check({ words, target }) {
    const limit = target.placement.words.title;
    const values = { characters: countCharacters(words.title.trim()), limit };
    const broken = judgeTitle(words.title, target.placement);
    if (broken === 'missing') return { severity: 'stop', code: 'missing', values };
    if (broken === null) return { severity: 'pass', code: 'within', values };
    const fix = {
      fix: 'shorten-words',
      values: { part: 'title', limit, text: words.title, outlet: target.sheet.outlet },
    } as const;
    return { severity: 'stop', code: 'over', values, fix };
  },
});
