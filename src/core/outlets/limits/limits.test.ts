import { z } from 'zod';
import { numberField } from './field';
import type * as FormModule from '../placement-form';
import type * as CompareModule from '../compare';
import type * as JudgeModule from '../judge';
import type * as LinksModule from './links';
import type * as PlainModule from '../plain-placement';
import type * as RuleModule from '../../check/rules/other-limits';
import type * as SheetModule from '../rule-sheet';
import type * as ShippedModule from '../shipped';
import { bordersSchema } from '../../picture/borders';
import type { SentFile } from '../sent';
import { countLinks } from './links';

/** A file that keeps the rules of a short. */
const FILE: SentFile = {
  ...{ container: 'mp4', decodes: true, width: 1080, height: 1920, rate: { num: 24, den: 1 }, frames: 240 },
  bytes: 1e6,
  video: { codec: 'avc', profile: 'high', level: 40, bits: 8e6, interlaced: false, oblongPixels: false },
  audio: null,
  borders: bordersSchema.parse({ left: 0, top: 0, right: 0, bottom: 0 }),
};

/** Looks at everything with a limit that nobody had thought of in the place of a line of the registry. */
function withAnotherLimit<T>(look: () => T): T {
  let seen: T | undefined;
  jest.isolateModules(() => {
    jest.doMock('./links', () => {
      const { linksLimit, ...more } = jest.requireActual<typeof LinksModule>('./links');
      const capitals = {
        name: 'capitals',
        shape: { maxCapitals: z.number().nullable().default(null) },
        plain: { maxCapitals: 100 },
        section: 'Words',
        fields: [{ path: 'maxCapitals', label: 'Most capitals in the title', as: numberField('') }],
        isPlainlyChecked: true,
        refusePost: ({ title }: { title: string }, { maxCapitals }: { maxCapitals: number | null }) =>
          maxCapitals !== null && title.replace(/[^A-Z]/g, '').length > maxCapitals
            ? 'The title shouts.'
            : null,
      };
      return { ...more, linksLimit: capitals };
    });
    seen = look();
    jest.dontMock('./links');
  });
  return seen as T;
}

describe('a limit that is a file and a line', () => {
  it('is in the schema, the form, the comparison, the judge of the outlet and the check', () => {
    withAnotherLimit(() => {
      const { SHIPPED_SHEETS } = jest.requireActual<typeof ShippedModule>('../shipped');
      const { ruleSheetSchema } = jest.requireActual<typeof SheetModule>('../rule-sheet');
      const [sheet] = SHIPPED_SHEETS;
      const [placement] = sheet!.placements;
      // A sheet that was written before has its default, and is stored with it.
      expect(placement).toMatchObject({ maxCapitals: null });
      const changed = { ...sheet!, placements: [{ ...placement!, maxCapitals: 1 }] };
      const stored = ruleSheetSchema.parse(JSON.parse(JSON.stringify(changed)));
      expect(stored).toEqual(changed);

      const { PLAIN_PLACEMENT } = jest.requireActual<typeof PlainModule>('../plain-placement');
      expect(PLAIN_PLACEMENT).toMatchObject({ maxCapitals: 100 });
      const { PLACEMENT_FORM } = jest.requireActual<typeof FormModule>('../placement-form');
      const words = PLACEMENT_FORM.find(({ title }) => title === 'Words');
      expect(words?.fields).toContainEqual(expect.objectContaining({ path: 'maxCapitals' }));
      const { sheetChanges } = jest.requireActual<typeof CompareModule>('../compare');
      expect(sheetChanges({ ...sheet!, placements: [placement!] }, stored)).toEqual([
        { place: 'Short, words: Most capitals in the title', before: 'none', after: '1' },
      ]);

      const { refusals } = jest.requireActual<typeof JudgeModule>('../judge');
      const post = { title: 'A KITE', description: '', tags: ['upright'], audience: 'private' } as const;
      const sent = { ...post, forChildren: false, longVideo: null, cover: null };
      expect(refusals(FILE, sent, { ...stored.placements[0]!, name: 'Short' })).toContainEqual({
        limit: 'capitals',
        reason: 'The title shouts.',
      });
      const { otherLimitsRule } = jest.requireActual<typeof RuleModule>('../../check/rules/other-limits');
      const target = {
        key: 'verrow/short',
        sheet: stored,
        placement: stored.placements[0]!,
        label: 'Verrow Short',
      };
      expect(
        otherLimitsRule.check({ words: sent as never, audience: 'private', target, requiredTags: [] }),
      ).toMatchObject({
        severity: 'stop',
        values: { reason: 'The title shouts.' },
      });
    });
  });
});

describe('links in a description', () => {
  it.each([
    ['', 0],
    ['Kites at the bay', 0],
    ['See www.kites.example', 1],
    ['https://kites.example/a?b=1, and http://bay.example.', 2],
    ['awww.that is none', 0],
    ['https://www.kites.example', 1],
  ])('are counted: %s', (text, links) => {
    expect(countLinks(text)).toBe(links);
  });
});
