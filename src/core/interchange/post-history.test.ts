import Papa from 'papaparse';
import type { RandomId } from '../figures/random-id';
import { postWordsSchema } from '../outlets/post-form';
import type { DispatchedPost } from '../posting/post-order';
import { historyCsv, historyRows, matchingRows } from './post-history';

const posted = (name: string, change: Partial<DispatchedPost> = {}): DispatchedPost => ({
  ...{ id: name as RandomId, upload: 'u' as RandomId, fileName: `${name}.mp4`, outlet: 'verrow' },
  ...{ account: 'a' as RandomId, when: null, version: 1 },
  words: postWordsSchema.parse({
    placement: 'short',
    title: 'Kites',
    description: '',
    tags: ['upright'],
    audience: 'public',
  }),
  ...{
    state: 'up',
    bytes: 9,
    sha256: 'ab12',
    sent: 9,
    share: 1,
    reasons: [],
    hold: null,
    wait: null,
    ahead: false,
  },
  ...{ page: '/outlets/verrow/posts/1', compared: null, madeAt: 1_000, upAt: 61_000 },
  ...change,
});
const names = { outletName: () => 'Verrow', accountName: (id: string) => `account ${id}` };

describe('the history of posts', () => {
  it('has the newest first, each with what it was and where it is', () => {
    const rows = historyRows([posted('old'), posted('new', { madeAt: 2_000 })], names);
    expect(rows.map(({ file }) => file)).toEqual(['new.mp4', 'old.mp4']);
    expect(rows[1]).toMatchObject({
      ...{ outlet: 'Verrow', account: 'account a', sha256: 'ab12', tags: 'upright' },
      ...{ ordered: '1970-01-01T00:00:01.000Z', up: '1970-01-01T00:01:01.000Z', scheduled: '' },
    });
    const when = { date: '2026-12-24', time: '18:00', zone: 'Pacific/Auckland' };
    expect(historyRows([posted('later', { when })], names)[0]?.scheduled).toBe(
      '2026-12-24T18:00 Pacific/Auckland',
    );
  });

  it('is searched by any of its words', () => {
    const refused = posted('no', { state: 'refused', reasons: ['Too long.'], sha256: 'ff00' });
    const rows = historyRows([posted('yes'), refused], names);
    const found = (search: string) => matchingRows(rows, search).map(({ file }) => file);
    expect(found('too LONG verrow')).toEqual(['no.mp4']);
    expect(found('ab12')).toEqual(['yes.mp4']);
    expect(found('')).toHaveLength(2);
    expect(found('nothing')).toEqual([]);
  });

  it('goes out as CSV that another reader takes, and as no formula', () => {
    const words = { ...posted('x').words, title: '=1+1', description: 'two\nlines, "quoted"' };
    const text = historyCsv(historyRows([posted('x', { words })], names));
    const [row] = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true }).data;
    expect(row).toMatchObject({
      title: "'=1+1",
      description: 'two\nlines, "quoted"',
      sha256: 'ab12',
      bytes: '9',
    });
  });
});
