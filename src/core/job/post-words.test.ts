import type { Words } from './clip';
import { withVariant, postWords } from './post-words';

const words: Words = { title: 'Kites', description: 'Wind and sea', tags: ['upright'] };

describe('words of a post', () => {
  it('are the same everywhere until one outlet has its own', () => {
    expect(postWords({ words }, 'verrow')).toBe(words);
    const changed = withVariant(words, 'verrow', { title: 'Kites, upright' });
    expect(postWords({ words: changed }, 'verrow')).toMatchObject({
      title: 'Kites, upright',
      description: 'Wind and sea',
    });
    expect(postWords({ words: changed }, 'tesselle').title).toBe('Kites');
    // What is written for all still reaches what was not written otherwise.
    const later = { ...changed, title: 'Other kites', description: 'Sea and wind' };
    expect(postWords({ words: later }, 'verrow')).toMatchObject({
      title: 'Kites, upright',
      description: 'Sea and wind',
    });
  });

  it('add to what an outlet has of its own, and let it go again', () => {
    const one = withVariant(words, 'verrow', { title: 'One' });
    const two = withVariant(one, 'verrow', { tags: [] });
    expect(two.variants).toEqual({ verrow: { title: 'One', tags: [] } });
    expect(withVariant(two, 'verrow', null)).toEqual(words);
  });
});
