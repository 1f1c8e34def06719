import { applyCommand, type Command } from '../job/commands/commands';
import { activeClip, type Job } from '../job/job';
import { activeCanvas, type Words } from '../job/clip';
import { changeCanvas } from '../job/canvases';
import { createFramingCommand, keep, TEST_MASTER, TEST_SOUND, testJob, testRange } from '../job/test-job';
import { testPass } from '../job/test-pass';
import { PLAIN_LAYOUT } from '../layout/layout';
import type { Master } from '../master/master';
import type { Placement } from '../outlets/placement';
import { findPlacement } from '../outlets/outlets';
import { SHIPPED_SHEETS } from '../outlets/shipped';
import type { AnalysisResult } from '../pass/pass';
import { type Encoding, PLAIN_ENCODING } from '../rate/encoding';
import type { StoredRect } from '../picture/size';
import type { CaptionWay } from '../words/captions';
import { plainBlock } from '../words/text-block';
import { checkJob } from './check';
import type { Finding } from './finding';
import { type RuleId, RULES } from './rules';
import type { Severity } from './rule';

/** A job on the test master and what it is judged by: what is not said is right by every rule. */
interface Case {
  master?: Partial<Master>;
  commands?: Command[];
  words?: Partial<Words>;
  placement?: (short: Placement) => Partial<Placement>;
  pass?: Partial<AnalysisResult> | null;
  /** Of the canvas, as no command makes it. */
  height?: number;
}

const SOUND = { integrated: -14, loudest: -10, truePeak: -1, samplePeak: -2, shortTerm: [], pauses: [] };
const WORDS: Words = {
  title: 'Kites over the bay',
  description: 'Wind and sea.',
  tags: ['upright', 'kites'],
  forChildren: false,
  longVideo: 'https://longshelf.example/videos/kites',
};
const short = findPlacement(SHIPPED_SHEETS, 'verrow/short')!.placement;

function found(rule: RuleId, { master, commands = [], words, placement, pass = {}, height }: Case): Finding {
  const made: Command[] = [
    { type: 'set-video-bits', bits: 8_000_000 },
    { type: 'set-words', words: { ...WORDS, ...words } },
  ];
  const start = testJob({ frames: 400, ...master });
  const edit = [...made, ...commands].reduce(applyCommand, start.edit);
  if (height !== undefined) activeCanvas(activeClip(edit)).height = height;
  const sheets = SHIPPED_SHEETS.map((sheet) =>
    sheet.outlet === 'verrow' ? { ...sheet, placements: [{ ...short, ...placement?.(short) }] } : sheet,
  );
  const known = pass === null ? null : testPass({ sound: SOUND, ...pass });
  return checkJob({ ...start, edit }, { sheets, passOf: () => known }).find(
    (finding) => finding.rule === rule,
  ) as Finding;
}

const encoded = (change: Partial<Encoding>): Command => ({
  ...{ type: 'set-encoding', canvases: ['canvas-1'], encoding: { ...PLAIN_ENCODING, ...change } },
});

/** How large the clip of a case is reckoned to be. */
const bytesOfAll = (): number => Math.ceil((found('file-size', {}).values as { bytes: number }).bytes);

const canvas = (change: Parameters<typeof changeCanvas>[2]): Command => {
  const { edit }: Job = testJob({ frames: 400 });
  return {
    type: 'set-canvases',
    act: 'size',
    ...changeCanvas(activeClip(edit), 'canvas-1', change),
  };
};
const size = (width: number, height: number) => canvas({ width, height });
const layout = (kind: 'single' | 'stacked' | 'turned') => canvas({ layout: { ...PLAIN_LAYOUT, kind } });
const rect = (x: number, y: number, width: number, height: number) => ({ x, y, width, height }) as StoredRect;
const zone = { name: 'Band', x: 0, y: 0.6, width: 1, height: 0.1 };
const withZone = () => ({ zones: { phone: [zone], tablet: [], desk: [] } });
const audio = (change: Partial<Placement['audio']>) => () => ({ audio: { ...short.audio, ...change } });
const video = (change: Partial<Placement['video']>) => () => ({ video: { ...short.video, ...change } });
/** A block that ends at a share of the height. */
const block = (end: number): Command => ({
  type: 'set-blocks',
  act: 'add',
  blocks: [{ ...plainBlock('block-1', 'Kites'), box: { x: 0.1, y: end - 0.1, width: 0.8, height: 0.1 } }],
});
const cue = (text: string): Command => ({
  type: 'set-cues',
  act: 'add',
  cues: [{ id: 'cue-1', text, spans: [testRange(0, 100)] }],
});
const captionsOut = (way: CaptionWay): Command => ({
  type: 'set-canvas-text',
  act: 'captions',
  canvas: 'canvas-1',
  text: { places: [], captions: way },
});
const loudness = { target: -14, within: 2 };

/**
 * By rule: a job that passes, one that breaks it by the smallest step there is, what the step is, and how serious that
 * is.
 */
const TABLE: Record<RuleId, [keeps: Case, breaks: Case, step: string, severity: Severity]> = {
  // At 23.976 fps 1438 frames last 59.98 s.
  length: [
    { master: { frames: 1438 }, placement: () => ({ length: { least: 1, most: 60, best: null } }) },
    { master: { frames: 1439 }, placement: () => ({ length: { least: 1, most: 60, best: null } }) },
    'a frame',
    'stop',
  ],
  size: [{}, { commands: [size(1080, 1918)] }, 'two pixels', 'stop'],
  even: [{ height: 1918 }, { height: 1919 }, 'a pixel', 'stop'],
  ratio: [{ commands: [size(1080, 1918)] }, { commands: [size(1080, 1916)] }, 'two pixels', 'stop'],
  coverage: [{}, { commands: [createFramingCommand({}, { fit: true })] }, 'a framing', 'stop'],
  bars: [{}, { pass: { live: rect(0, 0, 1, 1079 / 1080) } }, 'a row', 'stop'],
  combing: [{ pass: { combed: 0 } }, { pass: { combed: 0.5, topFirst: true } }, 'fields', 'warn'],
  'pixel-aspect': [
    { master: { picture: { width: 1920, height: 1080 } } },
    { master: { picture: { width: 720, height: 576 }, coded: { width: 720, height: 576 } } },
    'another raster',
    'warn',
  ],
  rate: [
    { master: { rate: { num: 60, den: 1 } } },
    { master: { rate: { num: 61, den: 1 } } },
    'a frame a second',
    'stop',
  ],
  stream: [{}, { placement: video({ profiles: ['baseline', 'main'] }) }, 'a profile', 'stop'],
  // 1080×1920 at 23.976 fps and 8 Mb/s fits level 4.0.
  level: [
    { placement: video({ mostLevel: 40 }) },
    { placement: video({ mostLevel: 39 }) },
    'a level',
    'stop',
  ],
  'bit-rate': [
    { placement: video({ mostBits: 8_000_000 }) },
    { placement: video({ mostBits: 7_999_999 }) },
    'a bit',
    'stop',
  ],
  colour: [
    {},
    { master: { colour: { matrix: 'bt709', primaries: 'bt709', transfer: 'pq', fullRange: false } } },
    'a transfer',
    'note',
  ],
  // 960 lines fill 1920 at exactly twice their size.
  enlargement: [
    { master: { picture: { width: 1920, height: 960 } } },
    { master: { picture: { width: 1920, height: 958 } } },
    'two rows',
    'warn',
  ],
  turned: [{ commands: [layout('single')] }, { commands: [layout('turned')] }, 'a quarter turn', 'note'],
  panes: [{ commands: [layout('single')] }, { commands: [layout('stacked')] }, 'a pane', 'warn'],
  // The focus at half the height is seen there; 0.6 is the zone's first row.
  zones: [
    {
      placement: withZone,
      commands: [createFramingCommand({ focus: { x: 0.4, y: 0.599 }, seat: { x: 0.5, y: 0.599 } })],
    },
    {
      placement: withZone,
      commands: [createFramingCommand({ focus: { x: 0.4, y: 0.6 }, seat: { x: 0.5, y: 0.6 } })],
    },
    'a thousandth of the height',
    'warn',
  ],
  'words-clear': [
    { placement: withZone, commands: [block(0.6)] },
    { placement: withZone, commands: [block(0.602)] },
    'two thousandths of the height',
    'warn',
  ],
  captions: [{ commands: [cue('x'.repeat(37))] }, { commands: [cue('x'.repeat(38))] }, 'a character', 'warn'],
  'file-size': [
    { placement: () => ({ mostBytes: bytesOfAll() }) },
    { placement: () => ({ mostBytes: bytesOfAll() - 1 }) },
    'a byte',
    'stop',
  ],
  audio: [{}, { master: { audio: null, audioTracks: [], soundTrack: null } }, 'a track', 'warn'],
  'sound-format': [
    { master: { audio: TEST_SOUND } },
    { master: { audio: { ...TEST_SOUND, channels: 6 } } },
    'channels',
    'note',
  ],
  peak: [{ pass: { sound: SOUND } }, { pass: { sound: { ...SOUND, truePeak: -0.9 } } }, '0.1 dB', 'note'],
  loudness: [
    { placement: audio({ loudness }), pass: { sound: { ...SOUND, integrated: -12 } } },
    { placement: audio({ loudness }), pass: { sound: { ...SOUND, integrated: -11.9 } } },
    '0.1 LU',
    'note',
  ],
  cover: [
    { placement: () => ({ cover: { width: 1080, height: 1920, mostBytes: 1e6 } }) },
    { placement: () => ({ cover: { width: 1080, height: 1350, mostBytes: 1e6 } }) },
    'a ratio',
    'note',
  ],
  sheet: [{}, { commands: [canvas({ placement: 'verrow/gone' })] }, 'a sheet', 'warn'],
  title: [
    { words: { title: 'x'.repeat(100) } },
    { words: { title: 'x'.repeat(101) } },
    'a character',
    'stop',
  ],
  'key-phrase': [{ words: { title: 'Kites today' } }, { words: { title: 'A kites day' } }, 'a word', 'note'],
  description: [
    { words: { description: 'x'.repeat(120) } },
    { words: { description: 'x'.repeat(121) } },
    'a character',
    'note',
  ],
  tag: [{ words: { tags: ['upright'] } }, { words: { tags: ['uprigh'] } }, 'a character', 'stop'],
  tags: [
    { words: { tags: ['upright', 'k'.repeat(30)] } },
    { words: { tags: ['upright', 'k'.repeat(31)] } },
    'a character',
    'stop',
  ],
  audience: [
    { commands: [{ type: 'set-audience', audience: 'public' }] },
    { commands: [{ type: 'set-audience', audience: 'friends' }] },
    'an audience',
    'stop',
  ],
  children: [{}, { words: { forChildren: undefined } }, 'a word', 'stop'],
  'long-video': [
    { placement: () => ({ longVideo: 'needed' }) },
    { placement: () => ({ longVideo: 'needed' }), words: { longVideo: '' } },
    'a link',
    'stop',
  ],
  'other-limits': [
    { placement: () => ({ maxLinks: 1 }), words: { description: 'See www.kites.example' } },
    { placement: () => ({ maxLinks: 0 }), words: { description: 'See www.kites.example' } },
    'a link',
    'stop',
  ],
};

describe('every rule', () => {
  it('has its two rows', () => {
    expect(Object.keys(TABLE).sort()).toEqual(Object.keys(RULES).sort());
  });

  it.each(Object.entries(TABLE))('%s passes, and is broken by the smallest step', (rule, row) => {
    const [keeps, breaks, , severity] = row;
    expect(found(rule as RuleId, keeps)).toMatchObject({ severity: 'pass' });
    expect(found(rule as RuleId, breaks)).toMatchObject({ severity });
  });
});

describe('what only the look at the master tells', () => {
  it.each<RuleId>(['bars', 'combing', 'peak', 'loudness'])('is not known before it: %s', (rule) => {
    expect(found(rule, { pass: null })).toMatchObject({ severity: 'unknown' });
  });
});

describe('the other outcomes of the rules', () => {
  it.each<[RuleId, string, Case]>([
    ['length', 'short', { placement: () => ({ length: { least: 17, most: 60, best: null } }) }],
    ['length', 'outside-best', { commands: [keep(0, 40)] }],
    ['stream', 'container', { placement: () => ({ containers: ['webm'] }) }],
    ['stream', 'codec', { placement: video({ codecs: ['av1'] }) }],
    ['level', 'chosen', { commands: [encoded({ level: 52 })], placement: video({ mostLevel: 42 }) }],
    ['file-size', 'unknown', { commands: [encoded({ rate: { kind: 'quality', quantiser: 20 } })] }],
    ['tag', 'missing-full', { words: { tags: Array.from({ length: 20 }, (_, i) => `kite${i}`) } }],
    ['bit-rate', 'over-master', { commands: [{ type: 'set-video-bits', bits: 12_100_000 }] }],
    [
      'colour',
      'guessed',
      { master: { colour: { matrix: null, primaries: null, transfer: null, fullRange: null } } },
    ],
    ['zones', 'none', { placement: () => ({ zones: { phone: [], tablet: [], desk: [] } }) }],
    // EBU R 95: the action-safe area leaves 3.5 % at each side.
    [
      'zones',
      'edge',
      {
        placement: withZone,
        commands: [createFramingCommand({ focus: { x: 0.4, y: 0.03 }, seat: { x: 0.5, y: 0.03 } })],
      },
    ],
    [
      'zones',
      'clear',
      {
        placement: withZone,
        commands: [createFramingCommand({ focus: { x: 0.4, y: 0.036 }, seat: { x: 0.5, y: 0.036 } })],
      },
    ],
    [
      'cover',
      'outside',
      {
        placement: () => ({ cover: { width: 1080, height: 1920, mostBytes: 1e6 } }),
        commands: [keep(0, 100), { type: 'set-cover', cover: { master: TEST_MASTER, frame: 200 } }],
      },
    ],
    ['words-clear', 'none', {}],
    ['words-clear', 'outside', { commands: [block(1.01)] }],
    ['captions', 'none', {}],
    ['captions', 'silent', { master: { audio: null, audioTracks: [], soundTrack: null } }],
    ['captions', 'left', { commands: [cue('Kites'), captionsOut('none')] }],
    ['captions', 'fine', { commands: [cue('Kites'), captionsOut('beside')] }],
    ['audio', 'silent', { pass: { sound: { ...SOUND, integrated: null } } }],
    ['sound-format', 'refused', { placement: audio({ codecs: ['opus'] }) }],
    ['sound-format', 'refused', { placement: audio({ sampleRates: [44_100] }) }],
    ['sound-format', 'refused', { placement: audio({ leastChannels: 1, mostChannels: 1 }) }],
    ['sound-format', 'thin', { placement: audio({ leastBits: 192_000 }) }],
    ['peak', 'clipped', { pass: { sound: { ...SOUND, truePeak: 0.1 } } }],
    ['peak', 'held', { placement: audio({ mostPeak: -3 }), pass: { sound: { ...SOUND, truePeak: -2 } } }],
    ['loudness', 'quiet', { pass: { sound: { ...SOUND, integrated: -20 } } }],
    [
      'loudness',
      'brought',
      {
        pass: { sound: { ...SOUND, integrated: -20 } },
        commands: [{ type: 'set-loudness', loudness: 'outlet' }],
      },
    ],
    ['loudness', 'none', { placement: audio({ loudness: null }) }],
    ['key-phrase', 'absent', { words: { title: 'A day at sea' } }],
    ['key-phrase', 'none', { words: { tags: ['upright'] } }],
    ['description', 'empty', { words: { description: '' } }],
    ['description', 'over', { words: { description: 'x'.repeat(2001) } }],
    ['tags', 'too-many', { words: { tags: Array<string>(21).fill('upright') } }],
    ['children', 'not-asked', { placement: () => ({ childrenStatement: false }) }],
    ['long-video', 'welcome', { words: { longVideo: '' } }],
    ['long-video', 'no-address', { words: { longVideo: 'shelf' } }],
    ['long-video', 'not-taken', { placement: () => ({ longVideo: 'none' }) }],
    ['sheet', 'own', { commands: [canvas({ placement: null })] }],
  ])('%s: %s', (rule, code, given) => {
    expect(found(rule, given)).toMatchObject({ code });
  });
});

describe('loudness of pieces', () => {
  // ITU-R BS.1770-4: what is 10 LU under the mean of all does not count.
  it('is gated, and that of the whole master where all is kept', () => {
    const shortTerm = [-14, -14, -14, -40, -14, -14, -14, -14, -20, -20, -20, -20, -20, -20, -20, -20, -20];
    const pass = { sound: { ...SOUND, integrated: -13, shortTerm } };
    const measured = (given: Case) => (found('loudness', given).values as { measured: number }).measured;
    expect(measured({ pass })).toBe(-13);
    expect(measured({ pass, commands: [keep(0, 191)] })).toBeCloseTo(-14, 0);
  });
});
