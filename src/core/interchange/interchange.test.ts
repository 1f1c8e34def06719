import fc from 'fast-check';
import { type Cut, cutFrames, toMasterLengths } from '../cut/cut';
import { STANDARD_RATES } from '../time/frame-rate';
import { formatTimecode } from '../time/timecode';
import { toCut, toShots, type ListMaster } from './cut-list';
import { readEdl, writeEdl } from './edl';
import { readOtio, writeOtio } from './otio';

const RATES = [
  { num: 24000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 60000, den: 1001 },
];
const FRAMES = 200_000;
const mastersAt = (rate: ListMaster['rate']): ListMaster[] => [
  { id: 'a', fileName: 'Kite Day (final).mp4', rate, frames: FRAMES },
  { id: 'b', fileName: 'Kite Day (final) 2.mov', rate, frames: FRAMES },
];
const cutOf: fc.Arbitrary<Cut> = fc.array(
  fc
    .tuple(fc.constantFrom('a', 'b'), fc.nat(150_000), fc.integer({ min: 1, max: 2000 }))
    .map(([master, start, length]) => ({ master, in: start, out: start + length })),
  { minLength: 1, maxLength: 12 },
);

/** Masters at any rates, with any names, also such as are written alike, or in other letters. */
const anyMasters: fc.Arbitrary<ListMaster[]> = fc
  .record({
    rates: fc.tuple(fc.constantFrom(...STANDARD_RATES), fc.constantFrom(...STANDARD_RATES)),
    names: fc.constantFrom(
      ['edit.mp4', 'edit.mp4'],
      ['海.mov', '山.mov'],
      ['Ärger (1).mp4', 'Arger-1.mp4'],
      ['a b.mov', 'ab.mov'],
      ['…', '….mp4'],
    ),
  })
  .map(({ rates, names }) =>
    ['a', 'b'].map((id, n) => ({ id, fileName: names[n]!, rate: rates[n]!, frames: FRAMES })),
  );

describe('round trips', () => {
  it('of 200 cuts of masters at any two rates, whatever they are called, on a canvas at any rate, change nothing', () => {
    fc.assert(
      fc.property(cutOf, anyMasters, fc.constantFrom(...STANDARD_RATES), (cut, masters, rate) => {
        for (const list of [
          readEdl(writeEdl('Title', cut, masters, rate), masters[0]!.rate),
          readEdl(writeEdl('Title', cut, masters, rate), rate),
        ]) {
          // Its own counting is told where the master has none of the kind.
          expect(list.notes.filter(({ reason }) => !/drop-frame/.test(reason))).toEqual([]);
          expect(toCut(list, masters)).toEqual({ cut, notes: [] });
        }
        // Two files of one name cannot be told apart there.
        if (masters[0]!.fileName === masters[1]!.fileName) return;
        const list = readOtio(writeOtio('Title', cut, masters), masters[0]!.rate);
        expect(toCut(list, masters)).toEqual({ cut, notes: [] });
      }),
      { numRuns: 200 },
    );
  });

  it('keep the record in step with the clip over a thousand cuts', () => {
    const masters = mastersAt({ num: 24000, den: 1001 });
    const rate = { num: 25, den: 1 };
    const cut = Array.from({ length: 1000 }, (_, i) => ({ master: 'a', in: 20 * i, out: 20 * i + 7 }));
    const { events } = readEdl(writeEdl('s', cut, masters, rate), rate);
    expect(events.at(-1)?.recordOut).toBe(cutFrames(cut, toMasterLengths(masters), rate));
  });

  it('of a cut through OpenTimelineIO change nothing, at any rate', () => {
    fc.assert(
      fc.property(cutOf, fc.constantFrom(...RATES), (cut, rate) => {
        const masters = mastersAt(rate);
        const list = readOtio(writeOtio('A “title”', cut, masters), rate);
        expect(list.notes).toEqual([]);
        expect(list.title).toBe('A “title”');
        expect(toCut(list, masters)).toEqual({ cut, notes: [] });
      }),
    );
  });

  it('of a cut through CMX 3600 change nothing, at any rate, drop-frame too', () => {
    fc.assert(
      fc.property(cutOf, fc.constantFrom(...RATES), (cut, rate) => {
        const masters = mastersAt(rate);
        const text = writeEdl('Title', cut, masters, rate);
        const list = readEdl(text, rate);
        expect(list.notes).toEqual([]);
        expect(toCut(list, masters)).toEqual({ cut, notes: [] });
        // Record times follow each other without a gap.
        list.events.forEach((event, i) => expect(event.recordIn).toBe(list.events[i - 1]?.recordOut ?? 0));
      }),
    );
  });

  it('of shots through both give the same boundaries', () => {
    const rate = RATES[3]!;
    const [master] = mastersAt(rate);
    const cut = [0, 90, 400, 1799, 1801].map((start, i, all) => ({
      master: 'a',
      in: start,
      out: all[i + 1] ?? 5000,
    }));
    for (const list of [
      readEdl(writeEdl('s', cut, [master!], rate), rate),
      readOtio(writeOtio('s', cut, [master!]), rate),
    ]) {
      expect(toShots(list, master!).boundaries.map((boundary) => boundary.frame)).toEqual([
        0, 90, 400, 1799, 1801,
      ]);
    }
  });
});

// Written by hand in the way that tools of several makers write them.
describe('a list as other tools write it', () => {
  const rate = { num: 25, den: 1 };
  const [master] = mastersAt(rate).map((master) => ({ ...master, fileName: 'SUNNY_01.mov', frames: 9000 }));
  const text = [
    'TITLE:   BEACH REEL v3  ',
    'FCM: NON-DROP FRAME',
    '',
    '001  SUNNY_01 V     C        01:00:02:00 01:00:04:00 01:00:00:00 01:00:02:00',
    '* FROM CLIP NAME:  sunny_01.MOV',
    '>>> SOURCE TIMECODE',
    '002  SUNNY_01 V     C        01:00:04:00 01:00:04:00 01:00:02:00 01:00:02:00',
    '002  AX       V     D    024 01:00:10:00 01:00:13:00 01:00:02:00 01:00:05:00',
    '* FROM CLIP NAME:  sunny_01.MOV',
    '* TO CLIP NAME:  sunny_01.MOV',
    'M2   SUNNY_01       050.0                01:00:20:00',
    '003  SUNNY_01 A     C        01:00:02:00 01:00:04:00 01:00:00:00 01:00:02:00',
    '004  BL       V     C        00:00:00:00 00:00:01:00 01:00:05:00 01:00:06:00',
    '005  SUNNY_01 V     W001 012 01:00:20:00 01:00:21:00 01:00:06:00 01:00:07:00',
    '006  SUNNY_01 V     C        01:00:99:00 01:00:21:00 01:00:06:00 01:00:07:00',
    '007  SUNNY_01 V     C        09:00:00:00 09:00:01:00 01:00:07:00 01:00:08:00',
    'something else',
  ].join('\r\n');
  const list = readEdl(text, rate);

  it('is read event by event, with transitions', () => {
    expect(list.title).toBe('BEACH REEL v3');
    expect(list.events.map(({ line, transition }) => [line, transition])).toEqual([
      [4, null],
      [8, { kind: 'dissolve', frames: 24, from: 90_050 }],
      [14, { kind: 'wipe', frames: 12, from: 90_150 }],
      [16, null],
    ]);
  });

  it('tells what cannot be used, each with its line and reason', () => {
    expect(list.notes.map(({ line }) => line)).toEqual([11, 12, 13, 15, 17]);
    expect(list.notes.map(({ reason }) => reason).join('; ')).toMatch(
      /speed of 050\.0.*track A.*black.*01:00:99:00 is not a timecode.*neither an event/,
    );
  });

  it('becomes a cut of the master, its hour taken off', () => {
    const { cut, notes } = toCut(list, [master!]);
    expect(cut).toEqual([
      { master: 'a', in: 50, out: 100 },
      { master: 'a', in: 250, out: 325 },
      { master: 'a', in: 500, out: 525 },
      { master: 'a', in: 0, out: 25 },
    ]);
    expect(notes.map(({ line }) => line)).toEqual([8, 14]);
  });

  it('becomes shots of the one master that was exported from it', () => {
    const { boundaries } = toShots(list, master!);
    expect(boundaries.map((boundary) => boundary.frame)).toEqual([0, 62, 125, 156, 175]);
    expect(boundaries[1]?.start).toEqual({ kind: 'dissolve', confidence: 1, frames: 24 });
  });

  // SMPTE ST 12-1: 00:01:00;02 follows 00:00:59;29.
  it('with drop-frame timecode counts what the clock says, also when it writes colons', () => {
    const film = { num: 30000, den: 1001 };
    const drop = (from: string, to: string) =>
      `FCM: DROP FRAME\n001  R1 V C ${from} ${to} 00:00:00:00 00:00:00:02`;
    for (const separator of [';', ':']) {
      const [event] = readEdl(drop(`00:00:59${separator}29`, `00:01:00${separator}03`), film).events;
      const { cut } = toCut({ title: '', notes: [], events: [event!], recordStart: 0 }, mastersAt(film));
      expect(cut).toEqual([{ master: 'a', in: 1799, out: 1801 }]);
    }
    expect(formatTimecode(1800, film, true)).toBe('00:01:00;02');
    expect(readEdl('FCM: DROP FRAME', rate).notes[0]).toMatchObject({ line: 1 });
  });

  const time = (value: number) => ({ OTIO_SCHEMA: 'RationalTime.1', rate: 25, value });
  const span = (from: number, length: number) => ({
    OTIO_SCHEMA: 'TimeRange.1',
    start_time: time(from),
    duration: time(length),
  });
  const clip = (name: string, from: number, length: number, more = {}) => ({
    OTIO_SCHEMA: 'Clip.1',
    name,
    source_range: span(from, length),
    media_reference: { OTIO_SCHEMA: 'ExternalReference.1', target_url: `file:///edit/${name}.mov` },
    ...more,
  });
  const timeline = {
    OTIO_SCHEMA: 'Timeline.1',
    name: 'Reel',
    tracks: {
      OTIO_SCHEMA: 'Stack.1',
      children: [
        {
          OTIO_SCHEMA: 'Track.1',
          kind: 'Video',
          name: 'V1',
          children: [
            clip('SUNNY_01', 10, 50),
            {
              OTIO_SCHEMA: 'Transition.1',
              transition_type: 'SMPTE_Dissolve',
              in_offset: time(6),
              out_offset: time(6),
            },
            clip('SUNNY_01', 200, 25, { effects: [{ OTIO_SCHEMA: 'LinearTimeWarp.1', time_scalar: 2 }] }),
            { OTIO_SCHEMA: 'Gap.1', source_range: span(0, 25) },
            { OTIO_SCHEMA: 'Stack.1', name: 'nested', source_range: span(0, 10), children: [] },
            clip('SUNNY_01', 400, 30, {
              source_range: null,
              media_reference: { available_range: span(400, 30), target_url: 'SUNNY%5F01.mov' },
            }),
            { OTIO_SCHEMA: 'Clip.2', name: 'lost', source_range: null, media_references: {} },
          ],
        },
        { OTIO_SCHEMA: 'Track.1', kind: 'Video', name: 'V2', children: [clip('TITLE', 0, 10)] },
        { OTIO_SCHEMA: 'Track.1', kind: 'Audio', name: 'A1', children: [] },
      ],
    },
  };

  it('in OpenTimelineIO is read from its first picture track, and says what is left out', () => {
    const read = readOtio(JSON.stringify(timeline, null, 1), rate);
    expect(
      read.events.map(({ recordIn, transition }) => [recordIn, transition?.frames ?? 0, transition?.from]),
    ).toEqual([
      [0, 0, undefined],
      [50, 12, 44],
      [110, 0, undefined],
    ]);
    const reasons = read.notes.map(({ reason }) => reason).join('; ');
    expect(reasons).toMatch(
      /speed of 2.*Stack inside a track.*clip lost has no source range.*track V2 lies over.*track A1 holds audio/,
    );
    for (const { line } of read.notes) expect(line).toBeGreaterThan(10);
    expect(toCut(read, [master!]).cut).toEqual([
      { master: 'a', in: 10, out: 60 },
      { master: 'a', in: 200, out: 225 },
      // Its media begins at 400, which is the first frame of the file.
      { master: 'a', in: 0, out: 30 },
    ]);
  });
});

describe('a malformed list', () => {
  const rate = RATES[0]!;
  const masters = mastersAt(rate);
  const cut = [
    { master: 'a', in: 5, out: 500 },
    { master: 'b', in: 0, out: 9 },
  ];
  const otio = writeOtio('t', cut, masters);
  const edl = writeEdl('t', cut, masters, rate);
  /** A text with a piece cut out, doubled or scribbled over. */
  const harmed = (text: string) =>
    fc
      .tuple(fc.nat(text.length), fc.nat(60), fc.string({ maxLength: 20 }))
      .map(([offset, length, more]) => text.slice(0, offset) + more + text.slice(offset + length));

  it.each([
    ['OpenTimelineIO', otio, readOtio],
    ['CMX 3600', edl, readEdl],
  ] as const)(
    'of %s never crashes, and gives the line and the reason of all that is wrong',
    (_, text, read) => {
      fc.assert(
        fc.property(fc.oneof(harmed(text), fc.string(), fc.json()), (any) => {
          const list = read(any, rate);
          const lines = any.split(/\r\n|\r|\n/).length;
          for (const { line, reason } of list.notes) {
            expect(line).toBeGreaterThanOrEqual(1);
            expect(line).toBeLessThanOrEqual(lines);
            expect(reason.length).toBeGreaterThan(8);
          }
          if (list.events.length === 0) expect(list.notes.length).toBeGreaterThan(0);
          for (const event of list.events) expect(event.recordOut).toBeGreaterThanOrEqual(event.recordIn);
          expect(() => [
            toCut(list, masters),
            list.events.length > 0 && toShots(list, masters[0]!),
          ]).not.toThrow();
        }),
        { numRuns: 300 },
      );
    },
  );

  it('says where JSON breaks', () => {
    expect(readOtio('{\n "OTIO_SCHEMA": "Timeline.1",\n "name": oops\n}', rate).notes[0]).toMatchObject({
      line: 3,
    });
    expect(readOtio('{"a": 1}', rate).notes[0]?.reason).toContain('not a timeline');
  });
});
