import type { Clip } from './clip';
import { leadWithKeyPhrase, hasLeadingKeyPhrase } from './key-phrase';
import { activeClip } from './job';
import { testJob } from './test-job';
import { fillTemplate, tagSetsFile, templatesFile, withTags } from './word-presets';

const job = testJob();
const clip = { ...activeClip(job.edit), name: 'Kites', part: { number: 2, of: 4 } };
const fill = (title: string, change: Partial<Clip> = {}) =>
  fillTemplate(
    { title, description: 'From {video}\n\n{day}', tags: ['kites'] },
    {
      job: { title: 'Kite Day' },
      clip: { ...clip, ...change },
      outlet: 'Verrow',
      day: '2026-11-30T10:00:00Z',
    },
  );

describe('a template of words', () => {
  it('is filled from the clip, its job and the outlet', () => {
    expect(fill('{clip} ({part}) – {job} on {outlet}')).toEqual({
      title: 'Kites (2 of 4) – Kite Day on Verrow',
      description: 'From \n\n2026-11-30',
      tags: ['kites'],
    });
  });

  it('leaves no holes where there is nothing to fill in', () => {
    expect(fill('{clip} {part} {job}', { part: null }).title).toBe('Kites Kite Day');
  });

  it('goes out and in as a file, and one with an unknown part does not', () => {
    const own = { name: 'Usual', title: '{clip}', description: '', tags: [] };
    expect(templatesFile.read(templatesFile.write([own]))).toEqual({ all: [own] });
    const wrong = templatesFile.write([{ ...own, title: '{clop}' }]);
    expect(templatesFile.read(wrong)).toEqual({
      problem: expect.stringContaining('{clop} is none of {clip}'),
    });
  });
});

describe('a set of tags', () => {
  it('adds what is not there yet, in order', () => {
    expect(withTags(['a', 'b'], ['b', 'c'])).toEqual(['a', 'b', 'c']);
    expect(tagSetsFile.read(tagSetsFile.write([{ name: 'Sea', tags: ['sea'] }]))).toEqual({
      all: [{ name: 'Sea', tags: ['sea'] }],
    });
  });
});

describe('the key phrase of a title', () => {
  it.each([
    ['Kite day at the bay', 'kite  DAY', true],
    ['At the bay: kite day', 'kite day', false],
  ])('leads “%s”, or not', (title, phrase, leads) => expect(hasLeadingKeyPhrase(title, phrase)).toBe(leads));

  it.each([
    ['At the bay: kite day', 'kite day', 'kite day: At the bay'],
    ['We fly', 'Kite day', 'Kite day: We fly'],
    ['kite day', 'Kite day', 'kite day'],
    ['', 'Kite day', 'Kite day'],
    ['We fly', ' ', 'We fly'],
  ])('is put in front of “%s”', (title, phrase, led) => expect(leadWithKeyPhrase(title, phrase)).toBe(led));
});
