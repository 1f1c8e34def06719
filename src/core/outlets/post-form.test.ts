import { MAX_CUES } from '../words/captions';
import { vttText } from '../words/files/write-captions';
import { judgeDescription } from './limits/description';
import { judgeTags } from './limits/tags';
import { judgeTitle } from './limits/title';
import { listPlacements } from './outlets';
import { postWordsSchema } from './post-form';
import { SHIPPED_SHEETS } from './shipped';

/** Emoji of eleven UTF-16 units that is one grapheme (UAX #29). */
const FAMILY = '👩‍👩‍👧‍👦';

describe('what a post takes', () => {
  it.each(listPlacements(SHIPPED_SHEETS).map(({ key, placement }) => [key, placement] as const))(
    'is all that %s takes, whatever script it is written in',
    (_key, placement) => {
      const { title, description, tags } = placement.words;
      const words = {
        ...{ placement: placement.id, audience: placement.audiences[0] },
        title: FAMILY.repeat(title),
        description: FAMILY.repeat(description.most),
        tags: Array.from({ length: tags.most }, () => FAMILY.repeat(tags.characters)),
      };
      const judged = [judgeTitle(words.title, placement), judgeDescription(words.description, placement)];
      expect([...judged, judgeTags(words.tags, placement)]).toEqual([null, null, null]);
      expect(postWordsSchema.safeParse(words).error).toBeUndefined();
    },
  );

  it('has room for as many captions as a clip can hold', () => {
    const captions = vttText(
      Array.from({ length: MAX_CUES }, (_, i) => ({ start: i, end: i + 1, text: 'word '.repeat(20) })),
    );
    const words = { ...{ placement: 'short', title: '', description: '', tags: [], audience: 'private' } };
    expect(postWordsSchema.safeParse({ ...words, captions }).error).toBeUndefined();
  });
});
