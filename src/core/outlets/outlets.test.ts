import { bordersSchema } from '../picture/borders';
import { refusals } from './judge';
import type { LimitName } from './limits/limits';
import type { Placement } from './placement';
import { findPlacement, listPlacements, findTarget } from './outlets';
import { postFormSchema } from './post-form';
import { readSheet } from './read-sheet';
import { ruleSheetSchema } from './rule-sheet';
import type { SentFile, SentPost } from './sent';
import { SHIPPED_SHEETS } from './shipped';
import { ratiosLabel, sizesLabel, isRatioTaken, isSizeTaken } from './taken-sizes';

const placementOf = (key: string): Placement => findPlacement(SHIPPED_SHEETS, key)!.placement;
const short = placementOf('verrow/short');
const post: SentPost = {
  title: 'A kite',
  description: '',
  tags: ['Upright'],
  audience: 'private',
  forChildren: false,
  longVideo: null,
  cover: null,
};
const good: SentFile = {
  container: 'mp4',
  decodes: true,
  width: 1080,
  height: 1920,
  rate: { num: 24000, den: 1001 },
  frames: 1438,
  bytes: 20e6,
  video: { codec: 'avc', profile: 'high', level: 40, bits: 8e6, interlaced: false, oblongPixels: false },
  audio: { codec: 'aac', sampleRate: 48000, channels: 2 },
  borders: { left: 0, top: 0, right: 0, bottom: 0 },
};

describe('rule sheets', () => {
  it('name what the outlets take', () => {
    expect(listPlacements(SHIPPED_SHEETS).map((placement) => placement.label)).toEqual([
      'Verrow Short',
      'Verrow Extended',
      'Verrow Square',
      'Tesselle Square',
      'Tesselle Portrait',
      'Tesselle Wide',
      'Tesselle Vanishing',
      'Commonfold Wide',
      'Commonfold Square',
      'Longshelf Video',
    ]);
    expect(findPlacement(SHIPPED_SHEETS, 'verrow/none')).toBeNull();
  });

  it('are refused when they are not whole', () => {
    const { date: _date, ...undated } = SHIPPED_SHEETS[0]!;
    expect(ruleSheetSchema.safeParse(undated).success).toBe(false);
    expect(ruleSheetSchema.safeParse({ ...SHIPPED_SHEETS[0], date: 'yesterday' }).success).toBe(false);
  });

  it.each<[string, Partial<Placement>, RegExp]>([
    ['lengths', { length: { least: 61, most: 60, best: null } }, /least length is over/],
    [
      'zones',
      { zones: { ...short.zones, desk: [{ name: 'x', x: 0.5, y: 0, width: 0.6, height: 0.1 }] } },
      /past the right edge/,
    ],
    [
      'channels',
      { audio: { ...short.audio, leastChannels: 2, mostChannels: 1 } },
      /fewest channels are over/,
    ],
    ['ids', { id: 'With Spaces' }, /small letters/],
  ])('say what is wrong with %s', (_, change, problem) => {
    const sheet = { ...SHIPPED_SHEETS[0]!, placements: [{ ...short, ...change }] };
    expect(readSheet(sheet)).toEqual({ problem: expect.stringMatching(problem) as string });
  });

  it('of the first version mean today what they meant then', () => {
    const first = {
      schemaVersion: 1,
      outlet: 'old',
      name: 'Old',
      about: 'An outlet',
      date: '2025-01-01',
      placements: [
        {
          ...{ id: 'tall', name: 'Tall', width: 1080, height: 1920, maxSeconds: 60 },
          ...{ maxRate: { num: 30, den: 1 }, maxBytes: 1e8, containers: ['mp4'], bars: 'refused' },
          audio: { required: true, sampleRates: [48000] },
          ...{ requiredTag: 'upright', titleCharacters: 80, descriptionCharacters: 900 },
        },
      ],
    };
    const read = readSheet(first);
    if ('problem' in read) throw new Error(read.problem);
    const [placement] = read.sheet.placements as [Placement];
    expect(placement).toMatchObject({
      sizes: { kind: 'one', size: { width: 1080, height: 1920 } },
      length: { least: null, most: 60, best: null },
      audio: { required: true, leastChannels: 1 },
      words: { title: 80, tags: { required: 'upright' } },
    });
    expect(refusals({ ...good, frames: 1439 }, post, placement).map(({ limit }) => limit)).toEqual([
      'length',
    ]);
    expect(readSheet({ ...first, schemaVersion: 9 })).toMatchObject({ problem: /newer/ });
    expect(readSheet({ name: 'x' })).toMatchObject({ problem: /no rule sheet/ });
  });
});

describe('sizes that are taken', () => {
  const wide = placementOf('commonfold/wide').sizes;
  it('are one, one of several, or a range whose ratios may be off by what even sides round', () => {
    expect(isSizeTaken(short.sizes, { width: 1080, height: 1920 })).toBe(true);
    expect(isSizeTaken(short.sizes, { width: 1080, height: 1918 })).toBe(false);
    expect(isSizeTaken(placementOf('tesselle/square').sizes, { width: 640, height: 640 })).toBe(true);
    expect(isSizeTaken(wide, { width: 1920, height: 1080 })).toBe(true);
    // 1920 / 1.91 is 1005.2, and 1006 the nearest even number.
    expect(isSizeTaken(wide, { width: 1920, height: 1006 })).toBe(true);
    expect(isSizeTaken(wide, { width: 1920, height: 1004 })).toBe(false);
    expect(isSizeTaken(wide, { width: 638, height: 360 })).toBe(false);
    expect(isRatioTaken(wide, { width: 320, height: 180 })).toBe(true);
  });

  it('have names', () => {
    expect(sizesLabel(wide)).toBe('from 640×360 to 3840×2160, 16:9 to 1.91:1');
    expect(sizesLabel(placementOf('tesselle/portrait').sizes)).toBe('1080×1350 or 640×800');
    expect(ratiosLabel(placementOf('tesselle/portrait').sizes)).toBe('4:5');
  });
});

describe('an outlet', () => {
  it('takes what keeps its rules, at the limit too', () => {
    expect(refusals(good, post, short)).toEqual([]);
    expect(refusals({ ...good, audio: null }, post, short)).toEqual([]);
  });

  const video = good.video;
  const audio = good.audio!;
  it.each<[string, Partial<SentFile>, Partial<SentPost>, LimitName, RegExp]>([
    ['one frame too many', { frames: 1439 }, {}, 'length', /lasts 60\.02 s; the limit is 60 s/],
    ['a wide picture', { width: 1920, height: 1080 }, {}, 'size', /1920×1080; Short takes 1080×1920/],
    ['a fast rate', { rate: { num: 120, den: 1 }, frames: 900 }, {}, 'rate', /120 fps; at most 60/],
    ['a heavy file', { bytes: 3e8 }, {}, 'file-size', /300\.0 MB; the cap is 250\.0 MB/],
    ['another codec', { video: { ...video, codec: 'vp9', profile: null } }, {}, 'video', /VP9, not H\.264/],
    ['another profile', { video: { ...video, profile: 'baseline' } }, {}, 'video', /baseline profile/],
    ['a high level', { video: { ...video, level: 50 } }, {}, 'level', /needs level 5\.0.*at most 4\.2/],
    ['too many bits', { video: { ...video, bits: 41e6 } }, {}, 'bit-rate', /41\.0 Mb\/s; at most 40\.0/],
    ['fields', { video: { ...video, interlaced: true } }, {}, 'scan', /interlaced/],
    ['oblong pixels', { video: { ...video, oblongPixels: true } }, {}, 'pixels', /not square/],
    ['another sound', { audio: { ...audio, codec: 'opus' } }, {}, 'sound', /AAC at 44\.1 or 48 kHz/],
    ['mono', { audio: { ...audio, channels: 1 } }, {}, 'sound', /mono; at least 2/],
    ['six channels', { audio: { ...audio, channels: 6 } }, {}, 'sound', /6 channels; at most 2/],
    [
      'bars',
      { borders: bordersSchema.parse({ left: 0, top: 656, right: 0, bottom: 656 }) },
      {},
      'bars',
      /top 656.*bottom 656/,
    ],
    ['another container', { container: 'mov' }, {}, 'container', /is MOV; Short takes MP4/],
    ['what does not decode', { decodes: false }, {}, 'damaged', /cannot be decoded to its end/],
    ['no title', {}, { title: ' ' }, 'title', /no title/],
    ['a long title', {}, { title: 'x'.repeat(101) }, 'title', /over 100 characters/],
    ['a long description', {}, { description: 'x'.repeat(2001) }, 'description', /over 2000 characters/],
    ['no tag', {}, { tags: ['kites'] }, 'tags', /#upright is missing/],
    ['many tags', {}, { tags: ['upright', ...Array<string>(20).fill('k')] }, 'tags', /21 tags; at most 20/],
    ['a long tag', {}, { tags: ['upright', 'k'.repeat(31)] }, 'tags', /over 30 characters/],
    ['an audience it lacks', {}, { audience: 'friends' }, 'audience', /cannot be friends/],
    ['no word on children', {}, { forChildren: null }, 'children', /made for children/],
    ['many links', {}, { description: 'www.a.example www.b.example' }, 'links', /2 links; at most 1/],
    ['a link that is none', {}, { longVideo: 'shelf' }, 'long-video', /not a web address/],
  ])('refuses %s and says why', (_, file, sent, limit, reason) => {
    expect(refusals({ ...good, ...file }, { ...post, ...sent }, { ...short, maxLinks: 1 })).toEqual([
      { limit, reason: expect.stringMatching(reason) as string },
    ]);
  });

  it('wants what it needs: a length, a link, sound', () => {
    const limits = (key: string, file: Partial<SentFile>, sent: Partial<SentPost> = {}) =>
      refusals({ ...good, ...file }, { ...post, ...sent }, placementOf(key)).map(({ limit }) => limit);
    const wide = { width: 1920, height: 1080 };
    expect(limits('commonfold/wide', wide)).toEqual(['long-video']);
    expect(limits('commonfold/wide', wide, { longVideo: 'https://longshelf.example/kites' })).toEqual([]);
    expect(limits('longshelf/video', { ...wide, audio: null })).toEqual(['sound']);
    expect(limits('longshelf/video', { ...wide, frames: 719 })).toEqual(['length']);
    expect(limits('longshelf/video', { ...wide, frames: 720 })).toEqual([]);
  });
});

it('judges a canvas whose sheet is gone by no limits, and says so', () => {
  const canvas = { placement: 'verrow/short', width: 1080, height: 1920 };
  expect(findTarget([], canvas)).toMatchObject({ key: 'own/size', label: 'verrow/short (no rule sheet)' });
  expect(findTarget(SHIPPED_SHEETS, canvas).label).toBe('Verrow Short');
  expect(findTarget([], { ...canvas, placement: null }).label).toBe('Own 1080×1920');
});

it('takes no upload names that lead elsewhere', () => {
  const form = { placement: 'short', title: 'x', description: '', tags: [], audience: 'private' };
  expect(postFormSchema.safeParse({ ...form, upload: '../../secret' }).success).toBe(false);
  expect(postFormSchema.safeParse({ ...form, upload: 'a1b2'.repeat(8) }).success).toBe(true);
});
