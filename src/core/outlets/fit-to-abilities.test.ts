import { fitToAbilities, listLeftOut } from './fit-to-abilities';
import { type Abilities, CONTRACT } from './outlet-api';
import { PLAIN_CONTENT, PLAIN_PERMISSIONS, postWordsSchema } from './post-form';

const able: Abilities = {
  ...{ contract: CONTRACT, outlet: 'verrow', name: 'Verrow', issuer: 'http://127.0.0.1/', mostBytes: 1 },
  ...{ placements: ['short'], covers: true, captions: true, permissions: true, content: true },
  ...{ collections: true, categories: [{ id: 'out', name: 'Outdoors' }], longVideos: true, viewed: true },
  ...{ drafts: ['short'], schedule: true, cards: true },
};
const words = postWordsSchema.parse({
  ...{ placement: 'short', title: 'Kites', description: '', tags: [], audience: 'private' },
  ...{
    cover: 'AAAA',
    captions: 'WEBVTT\n',
    longVideo: 'https://longshelf.example/kites',
    collection: 'Kite days',
    category: 'out',
  },
  permissions: { comments: false, sharing: false, reuse: true },
  content: { paid: true, synthetic: false },
});

describe('what an outlet is sent', () => {
  it('is all of it where the outlet takes all', () => expect(fitToAbilities(words, able)).toEqual(words));

  it('is what the outlet says that it takes', () => {
    const none = {
      covers: false,
      captions: false,
      permissions: false,
      content: false,
      collections: false,
      cards: false,
    };
    expect(fitToAbilities(words, { ...able, ...none, categories: [] })).toEqual({
      ...words,
      ...{ cover: null, captions: null, longVideo: null, collection: null, category: null },
      ...{ permissions: PLAIN_PERMISSIONS, content: PLAIN_CONTENT },
    });
  });

  it('says what is left out', () => {
    const all = { cover: true, captions: true, card: true };
    expect(listLeftOut(all, { covers: false, captions: false, cards: false })).toEqual([
      'the cover',
      'the captions as a file',
      'the link to the long video',
    ]);
    expect(listLeftOut({ ...all, captions: false }, { covers: true, captions: false, cards: true })).toEqual(
      [],
    );
  });
});
