import { toCut, toShots, type ListMaster } from './cut-list';
import { readEdl } from './edl';
import { readOtio } from './otio';

// Written by hand after the published forms: CMX 3600 as in SMPTE ST 258, OpenTimelineIO as in its schema reference.
const PAL = { num: 25, den: 1 };
const NTSC = { num: 30000, den: 1001 };
const masters: ListMaster[] = [
  { id: 'a', fileName: 'BEACH.mov', rate: PAL, frames: 9000 },
  { id: 'b', fileName: 'KITES.mov', rate: PAL, frames: 9000 },
];
const [beach] = masters as [ListMaster];
const HEAD = 'TITLE: REEL\nFCM: NON-DROP FRAME\n';
const cutOf = (text: string) =>
  toCut(readEdl(HEAD + text, PAL), masters).cut.map(({ master, in: from, out }) => [master, from, out]);

describe('an edit decision list', () => {
  it.each<[string, string, unknown[][]]>([
    [
      'a name behind an event of sound is not the picture’s',
      `001  BEACH V C 00:00:01:00 00:00:02:00 00:00:00:00 00:00:01:00
* FROM CLIP NAME: BEACH.MOV
002  KITES A C 00:00:05:00 00:00:06:00 00:00:00:00 00:00:01:00
* FROM CLIP NAME: KITES.MOV`,
      [['a', 25, 50]],
    ],
    [
      'a dissolve shows what it comes to',
      `001  BEACH V C     00:00:01:00 00:00:02:00 00:00:00:00 00:00:01:00
* FROM CLIP NAME: BEACH.MOV
002  AX V C     00:00:02:00 00:00:02:00 00:00:01:00 00:00:01:00
002  AX V D 012 00:00:05:00 00:00:07:00 00:00:01:00 00:00:03:00
* FROM CLIP NAME: BEACH.MOV
* TO CLIP NAME: KITES.MOV`,
      [
        ['a', 25, 50],
        ['b', 125, 175],
      ],
    ],
    [
      'a reel may have spaces',
      '001  KITES 2 CAM A V C 00:00:01:00 00:00:02:00 00:00:00:00 00:00:01:00\n* FROM CLIP NAME: KITES.mov',
      [['b', 25, 50]],
    ],
    ['black is no master (BL)', '001  BL V C 00:00:00:00 00:00:01:00 00:00:00:00 00:00:01:00', []],
    ['black is no master (BLACK)', '001  BLACK V C 00:00:00:00 00:00:01:00 00:00:00:00 00:00:01:00', []],
    [
      'an hour is taken off',
      '001  KITES V C 01:00:01:00 01:00:02:00 01:00:00:00 01:00:01:00',
      [['b', 25, 50]],
    ],
    ['another hour too', '001  KITES V C 10:00:01:00 10:00:02:00 01:00:00:00 01:00:01:00', [['b', 25, 50]]],
    [
      'pictures with sound',
      '001  KITES AA/V C 00:00:01:00 00:00:02:00 00:00:00:00 00:00:01:00',
      [['b', 25, 50]],
    ],
    [
      'a track with a number',
      '001  KITES V1 C 00:00:01:00 00:00:02:00 00:00:00:00 00:00:01:00',
      [['b', 25, 50]],
    ],
    ['small letters', '1 kites v c 00:00:01:00 00:00:02:00 00:00:00:00 00:00:01:00', [['b', 25, 50]]],
    ['tabs', '001\tKITES\tV\tC\t00:00:01:00\t00:00:02:00\t00:00:00:00\t00:00:01:00', [['b', 25, 50]]],
    ['a still', '001  KITES V C 00:00:01:00 00:00:01:00 00:00:00:00 00:00:02:00', [['b', 25, 75]]],
  ])('%s', (_what, text, cut) => {
    expect(cutOf(text)).toEqual(cut);
  });

  it('of a drop-frame canvas over a master of 25 fps keeps its events', () => {
    const text = `FCM: DROP FRAME
001  BEACH V C 00:00:01:00 00:00:02:00 00:00:59;28 00:01:00;28`;
    expect(toCut(readEdl(text, PAL), masters).cut).toEqual([{ master: 'a', in: 25, out: 50 }]);
  });

  it('counts each master at its own rate', () => {
    const own = [beach, { ...masters[1]!, rate: NTSC }];
    const text = `${HEAD}001  BEACH V C 00:00:01:00 00:00:02:00 00:00:00:00 00:00:01:00
002  KITES V C 00:00:01:00 00:00:02:00 00:00:01:00 00:00:02:00`;
    expect(toCut(readEdl(text, PAL), own).cut).toEqual([
      { master: 'a', in: 25, out: 50 },
      { master: 'b', in: 30, out: 60 },
    ]);
  });

  it('makes a shot of what lies between its pieces, and of black at its start', () => {
    const text = `${HEAD}001  BL V C 00:00:00:00 00:00:01:00 01:00:00:00 01:00:01:00
002  BEACH V C 00:00:01:00 00:00:02:00 01:00:01:00 01:00:02:00
003  BEACH V C 00:00:05:00 00:00:06:00 01:00:03:00 01:00:04:00`;
    expect(toShots(readEdl(text, PAL), beach).boundaries.map(({ frame }) => frame)).toEqual([0, 25, 50, 75]);
  });
});

describe('a timeline', () => {
  const time = (value: number, rate = 25) => ({ OTIO_SCHEMA: 'RationalTime.1', rate, value });
  const range = (start: number, length: number, rate = 25) => ({
    ...{ OTIO_SCHEMA: 'TimeRange.1', start_time: time(start, rate), duration: time(length, rate) },
  });
  const clip = (name: string, source: object | null, more: object = {}, media: object = {}) => ({
    ...{ OTIO_SCHEMA: 'Clip.1', name, source_range: source },
    media_reference: { OTIO_SCHEMA: 'ExternalReference.1', target_url: `${name}.mov`, ...media },
    ...more,
  });
  const gap = (length: number) => ({ OTIO_SCHEMA: 'Gap.1', source_range: range(0, length) });
  const track = (children: object[], more: object = {}) => ({
    ...{ OTIO_SCHEMA: 'Track.1', kind: 'Video', name: 'V1', children },
    ...more,
  });
  const timeline = (...children: object[]) =>
    JSON.stringify({ OTIO_SCHEMA: 'Timeline.1', name: 'x', tracks: { OTIO_SCHEMA: 'Stack.1', children } });
  const cutIn = (text: string) => toCut(readOtio(text, PAL), masters).cut;
  const used = (from: number, out: number) => ({ master: 'a', in: from, out });

  it.each<[string, string, unknown[]]>([
    [
      'counts from where its media begins',
      timeline(track([clip('BEACH', range(90_025, 50), {}, { available_range: range(90_000, 9000) })])),
      [used(25, 75)],
    ],
    [
      'takes all of a media without a range of its own',
      timeline(track([clip('BEACH', null, {}, { available_range: range(90_000, 200) })])),
      [used(0, 200)],
    ],
    [
      'leaves out what is switched off',
      timeline(track([clip('BEACH', range(0, 10), { enabled: false })])),
      [],
    ],
    [
      'leaves out a track that is switched off',
      timeline(
        track([clip('BEACH', range(5, 10))], { enabled: false }),
        track([clip('BEACH', range(0, 10))]),
      ),
      [used(0, 10)],
    ],
    ['passes an empty track by', timeline(track([]), track([clip('BEACH', range(5, 10))])), [used(5, 15)]],
    ['counts seconds too', timeline(track([clip('BEACH', range(1, 2, 1))])), [used(25, 75)]],
  ])('%s', (_what, text, cut) => {
    expect(cutIn(text)).toEqual(cut);
  });

  it('keeps its shots in place behind a gap, and where a transition joins them', () => {
    const transition = {
      ...{ OTIO_SCHEMA: 'Transition.1', transition_type: 'SMPTE_Dissolve' },
      ...{ in_offset: time(4), out_offset: time(8) },
    };
    const text = timeline(
      track([gap(25), clip('BEACH', range(0, 50)), transition, clip('BEACH', range(100, 50))]),
    );
    const { boundaries } = toShots(readOtio(text, PAL), beach);
    // The dissolve lasts from 71 to 83.
    expect(boundaries.map(({ frame }) => frame)).toEqual([0, 25, 77]);
  });

  it('of 4,000 clips is read in a few passes over its text', () => {
    const many = timeline(track(Array.from({ length: 4000 }, (_, n) => clip('BEACH', range(n, 1)))));
    const split = jest.spyOn(String.prototype, 'split');
    const slice = jest.spyOn(String.prototype, 'slice');
    const list = readOtio(many, PAL);
    const calls = split.mock.calls.length + slice.mock.calls.filter((call) => (call[1] ?? 0) > 1e5).length;
    jest.restoreAllMocks();
    expect(list.events).toHaveLength(4000);
    expect(calls).toBeLessThan(10_000);
    expect(new Set(list.events.map(({ line }) => line))).toEqual(new Set([1]));
  });
});
