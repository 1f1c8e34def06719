import { bordersSchema } from '../picture/borders';
import { refusals, type SentFile } from './judge';
import { PLACEMENTS, placementOf, RULE_SHEETS } from './outlets';
import { postFormSchema } from './post-form';
import { ruleSheetSchema } from './rule-sheet';

const { placement } = placementOf('verrow/short');
const words = { title: 'A kite', description: '', tags: ['Upright'] };
const good: SentFile = {
  container: 'mp4',
  decodes: true,
  width: 1080,
  height: 1920,
  rate: { num: 24000, den: 1001 },
  frames: 1438,
  bytes: 20e6,
  videoCodec: 'avc',
  audio: { codec: 'aac', sampleRate: 48000 },
  borders: { left: 0, top: 0, right: 0, bottom: 0 },
};

describe('rule sheets', () => {
  it('name what the outlets take', () => {
    expect(PLACEMENTS.map((placement) => placement.label)).toEqual([
      'Verrow Short',
      'Tesselle Square',
      'Tesselle Portrait',
    ]);
    expect(() => placementOf('verrow/none')).toThrow(RangeError);
  });

  it('are refused when they are not whole', () => {
    const { date: _date, ...undated } = RULE_SHEETS[0]!;
    expect(ruleSheetSchema.safeParse(undated).success).toBe(false);
    expect(ruleSheetSchema.safeParse({ ...RULE_SHEETS[0], date: 'yesterday' }).success).toBe(false);
  });
});

describe('an outlet', () => {
  it('takes what keeps its rules, at the limit too', () => {
    expect(refusals(good, words, placement)).toEqual([]);
    expect(refusals({ ...good, audio: null }, words, placement)).toEqual([]);
  });

  it.each<[string, Partial<SentFile>, Partial<typeof words>, RegExp]>([
    ['one frame too many', { frames: 1439 }, {}, /lasts 60\.02 s; the limit is 60 s/],
    ['a wide picture', { width: 1920, height: 1080 }, {}, /1920×1080; Short takes 1080×1920/],
    ['a fast rate', { rate: { num: 120, den: 1 }, frames: 900 }, {}, /120 fps; at most 60/],
    ['a heavy file', { bytes: 3e8 }, {}, /300\.0 MB; the cap is 250\.0 MB/],
    ['another codec', { videoCodec: 'vp9' }, {}, /not H\.264/],
    ['another sound', { audio: { codec: 'opus', sampleRate: 48000 } }, {}, /AAC at 44\.1 or 48 kHz/],
    [
      'bars',
      { borders: bordersSchema.parse({ left: 0, top: 656, right: 0, bottom: 656 }) },
      {},
      /top 656.*bottom 656/,
    ],
    ['another container', { container: 'mov' }, {}, /is MOV; Short takes MP4/],
    ['what does not decode', { decodes: false }, {}, /cannot be decoded to its end/],
    ['no title', {}, { title: ' ' }, /no title/],
    ['a long title', {}, { title: 'x'.repeat(101) }, /over 100 characters/],
    ['a long description', {}, { description: 'x'.repeat(2001) }, /over 2000 characters/],
    ['no tag', {}, { tags: ['kites'] }, /#upright is missing/],
  ])('refuses %s and says why', (_, file, sent, reason) => {
    const reasons = refusals({ ...good, ...file }, { ...words, ...sent }, placement);
    expect(reasons).toHaveLength(1);
    expect(reasons[0]).toMatch(reason);
  });
});

it('takes no upload names that lead elsewhere', () => {
  const form = { placement: 'short', title: 'x', description: '', tags: [], audience: 'private' };
  expect(postFormSchema.safeParse({ ...form, upload: '../../secret' }).success).toBe(false);
  expect(postFormSchema.safeParse({ ...form, upload: 'a1b2'.repeat(8) }).success).toBe(true);
});
