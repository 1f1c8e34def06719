import { fitted, leftOut } from './fitted';
import { type Abilities, CONTRACT } from './outlet-api';
import { PLAIN_CONTENT, PLAIN_PERMISSIONS, postWordsSchema } from './post-form';

const able: Abilities = {
  ...{ contract: CONTRACT, outlet: 'verrow', name: 'Verrow', issuer: 'http://127.0.0.1/', mostBytes: 1 },
  ...{ placements: ['short'], covers: true, captions: true, permissions: true, content: true },
  ...{ collections: true, categories: [{ id: 'out', name: 'Outdoors' }], longVideos: true, viewed: true },
};
const words = postWordsSchema.parse({
  ...{ placement: 'short', title: 'Kites', description: '', tags: [], audience: 'private' },
  ...{ cover: 'AAAA', captions: 'WEBVTT\n', collection: 'Kite days', category: 'out' },
  permissions: { comments: false, sharing: false, reuse: true },
  content: { paid: true, synthetic: false },
});

describe('what an outlet is sent', () => {
  it('is all of it where the outlet takes all', () => expect(fitted(words, able)).toEqual(words));

  it('is what the outlet says that it takes', () => {
    const none = { covers: false, captions: false, permissions: false, content: false, collections: false };
    expect(fitted(words, { ...able, ...none, categories: [] })).toEqual({
      ...words,
      ...{ cover: null, captions: null, collection: null, category: null },
      ...{ permissions: PLAIN_PERMISSIONS, content: PLAIN_CONTENT },
    });
  });

  it('says what is left out', () => {
    expect(leftOut({ cover: true, captions: true }, { covers: false, captions: false })).toEqual([
      'the cover',
      'the captions as a file',
    ]);
    expect(leftOut({ cover: true, captions: false }, { covers: true, captions: false })).toEqual([]);
  });
});
