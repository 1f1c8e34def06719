import { hasTag } from '../../outlets/limits/tags';
import { postRule, outcome } from '../rule';

interface Phrase {
  phrase: string;
}
const figures = ({ phrase }: Phrase): string => `"${phrase}"`;
/** Letters and figures only, so that a tag of several words is found in a title. */
const plain = (text: string): string => text.toLowerCase().replace(/[^\p{Letter}\p{Number}]+/gu, '');

/** The key phrase, or where none is given the first tag of the person's own, stands first in the title. */
export const keyPhraseRule = postRule({
  name: 'Main words first',
  reads: ['words', 'requiredTags'],
  outlet: true,
  outcomes: {
    none: outcome<object>(
      () => 'There is no key phrase, and no tag of your own that could be it.',
      () => 'no tag of its own',
    ),
    first: outcome<Phrase>(({ phrase }) => `The title begins with "${phrase}".`, figures),
    later: outcome<Phrase>(
      ({ phrase }) => `"${phrase}" comes late in the title. Titles are cut off: put it first.`,
      figures,
    ),
    absent: outcome<Phrase>(
      ({ phrase }) => `"${phrase}", your main phrase, is not in the title. Begin the title with it.`,
      figures,
    ),
  },
  check({ words, requiredTags }) {
    const phrase = words.keyPhrase?.trim() || words.tags.find((tag) => !hasTag(requiredTags, tag));
    if (phrase === undefined || plain(phrase) === '') return { severity: 'pass', code: 'none', values: {} };
    const at = plain(words.title).indexOf(plain(phrase));
    if (at === 0) return { severity: 'pass', code: 'first', values: { phrase } };
    return { severity: 'note', code: at > 0 ? 'later' : 'absent', values: { phrase } };
  },
});
