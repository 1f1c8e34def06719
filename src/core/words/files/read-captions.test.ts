import fc from 'fast-check';
import { parseText } from 'media-captions';
import { WebVTTParser } from 'webvtt-parser';
import { SEED, seeded, soakFigure, trials } from '../../../../tests/soak';
import { MAX_CUES } from '../captions';
import { locateWords } from '../speech-rhythm';
import { noteWords, NOTES, type NoteCode } from './caption-note';
import { readCaptions } from './read-captions';
import { CAPTION_FORMS, captionText, srtText, vttText } from './write-captions';

const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);
const read = (text: string) => readCaptions(utf8(text));
const plain = (text: string) => read(text).cues.map(({ start, end, text: words }) => [start, end, words]);
const codes = (text: string): NoteCode[] => {
  const { cues, notes } = read(text);
  return [...notes, ...cues.flatMap((cue) => cue.notes)].map((note) => note.code);
};

const SRT = `1
00:00:01,000 --> 00:00:02,500
First line
second line

2
00:00:03,000 --> 00:00:04,000
The other cue
`;

describe('SubRip', () => {
  it('is read as it is written, and nothing is said of a file that is right', () => {
    expect(plain(SRT)).toEqual([
      [1, 2.5, 'First line\nsecond line'],
      [3, 4, 'The other cue'],
    ]);
    expect(codes(SRT)).toEqual([]);
    expect(plain(SRT.replaceAll('\n', '\r\n'))).toEqual(plain(SRT));
    expect(plain(SRT.replaceAll('\n', '\r'))).toEqual(plain(SRT));
  });

  it.each<[string, (bytes: Uint8Array) => Uint8Array, NoteCode | null]>([
    ['UTF-8 with a mark', (bytes) => Uint8Array.from([0xef, 0xbb, 0xbf, ...bytes]), 'mark'],
    ['UTF-16, low byte first, with a mark', (bytes) => utf16(bytes, true, true), 'encoding'],
    ['UTF-16, high byte first, with a mark', (bytes) => utf16(bytes, false, true), 'encoding'],
    ['UTF-16 without a mark', (bytes) => utf16(bytes, true, false), 'encoding'],
    [
      'Windows-1252',
      (bytes) => Uint8Array.from(Buffer.from(new TextDecoder().decode(bytes), 'latin1')),
      'encoding',
    ],
  ])('is read in %s', (_, encoded, note) => {
    const { cues, notes } = readCaptions(encoded(utf8(SRT.replace('First', 'Fête: é ß'))));
    expect(cues.map((cue) => cue.text)).toEqual(['Fête: é ß line\nsecond line', 'The other cue']);
    expect(notes.map(({ code }) => code)).toEqual(note ? [note] : []);
  });

  it.each<[NoteCode, string, ReturnType<typeof plain>]>([
    ['number', '7\n00:00:01,000 --> 00:00:02,000\nA', [[1, 2, 'A']]],
    ['number', '00:00:01,000 --> 00:00:02,000\nA', [[1, 2, 'A']]],
    ['comma', '1\n00:00:01.000 --> 00:00:02.000\nA', [[1, 2, 'A']]],
    ['comma', '1\n0:1,5 -> 0:2\nA', [[1.5, 2, 'A']]],
    ['comma', '1\n00:00:01:500 → 00:00:02:250\nA', [[1.5, 2.25, 'A']]],
    ['negative', '1\n-00:00:01,000 --> 00:00:02,000\nA', [[0, 2, 'A']]],
    ['backward', '1\n00:00:05,000 --> 00:00:02,000\nA', [[2, 5, 'A']]],
    ['instant', '1\n00:00:05,000 --> 00:00:05,000\nA', [[5, 6, 'A']]],
    ['time-unclear', '1\n00:00:xx,000 --> 00:00:02,000\nA', []],
    [
      'order',
      '1\n00:00:05,000 --> 00:00:06,000\nB\n\n2\n00:00:01,000 --> 00:00:02,000\nA',
      [
        [1, 2, 'A'],
        [5, 6, 'B'],
      ],
    ],
    [
      'overlap',
      '1\n00:00:01,000 --> 00:00:03,000\nA\n\n2\n00:00:02,000 --> 00:00:04,000\nB',
      [
        [1, 2, 'A'],
        [2, 4, 'B'],
      ],
    ],
    [
      'together',
      '1\n00:00:01,000 --> 00:00:03,000\nA\n\n2\n00:00:01,000 --> 00:00:04,000\nB',
      [[1, 4, 'A\nB']],
    ],
    [
      'blank-missing',
      '1\n00:00:01,000 --> 00:00:02,000\nA\n2\n00:00:02,000 --> 00:00:03,000\nB',
      [
        [1, 2, 'A'],
        [2, 3, 'B'],
      ],
    ],
    ['blank-inside', '1\n00:00:01,000 --> 00:00:02,000\nA\n\nB\n\n', [[1, 2, 'A\nB']]],
    [
      'tags',
      '1\n00:00:01,000 --> 00:00:02,000\n{\\an8}<font color="#fff"><i>A</i></font> < B',
      [[1, 2, 'A < B']],
    ],
    ['empty', '1\n00:00:01,000 --> 00:00:02,000\n\n2\n00:00:02,000 --> 00:00:03,000\nB', [[2, 3, 'B']]],
    ['outside', 'Some words\n\n1\n00:00:01,000 --> 00:00:02,000\nA', [[1, 2, 'A']]],
  ])('is mended, and it is told: %s', (code, text, cues) => {
    expect(codes(text)).toContain(code);
    if (code !== 'time-unclear') expect(plain(text)).toEqual(cues);
  });

  it('keeps words that look like marks, and letters of every kind', () => {
    const text = '1\n00:00:01,000 --> 00:00:02,000\na < b & c > d <3 &amp; x --> y\n-->';
    expect(plain(text)).toEqual([[1, 2, 'a < b & c > d <3 & x --> y\n-->']]);
  });

  it('tells each thing in a sentence that names what was done', () => {
    for (const code of Object.keys(NOTES) as NoteCode[]) {
      expect(noteWords({ code, line: 1, detail: '5' })).toMatch(/^[A-Z].*[.:”]$/);
    }
  });

  it('divides a cue that is longer than one can hold, and keeps all of it', () => {
    const words = 'word '.repeat(900).trim();
    const { cues } = read(`1\n00:00:00,000 --> 00:00:10,000\n${words}`);
    expect(cues.length).toBeGreaterThan(4);
    expect(cues.map((cue) => cue.text).join('')).toBe(words);
    expect(cues[cues.length - 1]?.end).toBeCloseTo(10, 6);
  });

  it('takes no more cues than a clip can hold, and says so', () => {
    const many = Array.from({ length: MAX_CUES + 3 }, (_, i) => ({ start: i, end: i + 1, text: 'A' }));
    const { cues, notes } = read(srtText(many));
    expect(cues).toHaveLength(MAX_CUES);
    expect(notes.map(({ code }) => code)).toEqual(['many']);
  });
});

/** Text as UTF-16. */
function utf16(bytes: Uint8Array, little: boolean, mark: boolean): Uint8Array {
  const text = `${mark ? '\uFEFF' : ''}${new TextDecoder().decode(bytes)}`;
  const pairs = Buffer.from(text, 'utf16le');
  return Uint8Array.from(little ? pairs : pairs.swap16());
}

// Cases written from the W3C's WebVTT (Candidate Recommendation, 4 April 2019): sections 4.1 (file structure), 4.2
// (cue text) and 6.4 (cue text parsing rules).
describe('WebVTT', () => {
  it('has a header, with or without words beside it, and names of cues', () => {
    const text =
      'WEBVTT - kites\nKind: captions\n\nthe first\n00:01.000 --> 00:02.000\nA\n\n01:00:00.000 --> 01:00:01.000\nB\n';
    expect(plain(text)).toEqual([
      [1, 2, 'A'],
      [3600, 3601, 'B'],
    ]);
    expect(codes(text)).toEqual([]);
  });

  it('has notes, styles and regions, which are told', () => {
    const text =
      'WEBVTT\n\nSTYLE\n::cue { color: red }\n\nNOTE a comment\nof two lines\n\n00:01.000 --> 00:02.000\nA\n\nNOTE the end\n';
    expect(plain(text)).toEqual([[1, 2, 'A']]);
    expect(codes(text)).toEqual(['comment', 'comment', 'comment']);
  });

  it('has settings of place, which are told, since captions are placed here', () => {
    expect(codes('WEBVTT\n\n00:01.000 --> 00:02.000 line:0 align:left\nA\n')).toEqual(['tags']);
  });

  it('has spans of voice, class, language, ruby and style, whose words stay', () => {
    const text =
      'WEBVTT\n\n00:01.000 --> 00:02.000\n<v Ann><c.loud>Up</c> <i>and</i> <b><u>away</u></b></v> <lang fr>oui</lang> <ruby>凧<rt>たこ</rt></ruby>\n';
    expect(plain(text)).toEqual([[1, 2, 'Up and away oui 凧たこ']]);
  });

  it('has names of characters', () => {
    expect(plain('WEBVTT\n\n00:01.000 --> 00:02.000\n&lt;1&gt; &amp;&nbsp;2\n')).toEqual([
      [1, 2, '<1> &\u00a02'],
    ]);
  });

  it('may say when each word begins', () => {
    const [cue] = read('WEBVTT\n\n00:10.000 --> 00:14.000\nOne <00:11.000>two <00:00:13.000>three\n').cues;
    expect(cue).toMatchObject({ text: 'One two three', words: [0, 0.25, 0.75] });
  });

  it('is read as two other parsers read it, where it is right', async () => {
    const words = fc.array(fc.stringMatching(/^[A-Za-zäé,.!?&<>-]{1,10}$/), { minLength: 1, maxLength: 8 });
    const lines = fc.array(
      words.map((all) => all.join(' ').replaceAll('-->', '—')),
      { minLength: 1, maxLength: 3 },
    );
    const files = fc.array(
      fc.tuple(lines, fc.integer({ min: 100, max: 5000 }), fc.integer({ min: 0, max: 3000 })),
      {
        minLength: 1,
        maxLength: 20,
      },
    );
    await fc.assert(
      fc.asyncProperty(files, async (cues) => {
        let at = 0;
        const written = cues.map(([text, length, gap]) => {
          const start = (at + gap) / 1000;
          at += gap + length;
          return { start, end: at / 1000, text: text.join('\n') };
        });
        const text = vttText(written);
        const ours = plain(text);
        expect(ours).toEqual(written.map(({ start, end, text }) => [start, end, text]));
        const other = new WebVTTParser().parse(text, 'subtitles');
        expect(other.errors).toEqual([]);
        const times = written.map(({ start, end }) => [Math.round(start * 1000), Math.round(end * 1000)]);
        const inThousandths = (cue: { startTime: number; endTime: number }) =>
          [cue.startTime, cue.endTime].map((time) => Math.round(time * 1000));
        expect(other.cues.map(inThousandths)).toEqual(times);
        const third = await parseText(text, { type: 'vtt' });
        expect(third.cues.map(inThousandths)).toEqual(times);
      }),
      { numRuns: 60 },
    );
  });
});

describe('captions that go out', () => {
  it('are one caption each, whatever ends the lines of their words', () => {
    const text = 'a\r\rb\r\n\r\nc';
    for (const form of CAPTION_FORMS) {
      const { cues } = readCaptions(
        new TextEncoder().encode(captionText([{ start: 1, end: 2, text }], form)),
      );
      expect(cues).toHaveLength(1);
      expect(cues[0]?.text).toBe('a\nb\nc');
    }
  });

  it('come in again as they were, in both formats', () => {
    const cues = [
      { start: 0, end: 1.234, text: 'A & < B >\nsecond' },
      { start: 3599.999, end: 3601, text: '5\n00:00' },
    ];
    for (const text of [srtText(cues), vttText(cues)]) {
      expect(plain(text)).toEqual(cues.map(({ start, end, text: words }) => [start, end, words]));
      expect(codes(text)).toEqual([]);
    }
    const marked = [{ start: 0, end: 1, text: '<b>&amp;' }];
    expect(plain(vttText(marked))).toEqual([[0, 1, '<b>&amp;']]);
    expect(srtText(cues)).toMatch(/^1\r\n00:00:00,000 --> 00:00:01,234\r\n/);
    expect(vttText(cues)).toMatch(/^WEBVTT\n\n1\n00:00:00\.000 --> 00:00:01\.234\n/);
  });
});

describe('files that are broken in many ways', () => {
  /** Damages that are done to a correct file. */
  const BREAKS: ((lines: string[], random: () => number) => void)[] = [
    (lines, random) => void lines.splice(Math.floor(random() * lines.length), 1),
    (lines, random) => void lines.splice(Math.floor(random() * lines.length), 0, ''),
    (lines, random) => void lines.splice(Math.floor(random() * lines.length), 0, '12'),
    (lines, random) => void lines.push(lines[Math.floor(random() * lines.length)] ?? ''),
    (lines, random) => void lines.splice(Math.floor(random() * lines.length), 0, '<i>{\\an8} & <'),
    (lines) => void lines.forEach((line, i) => (lines[i] = line.replace(',', '.'))),
    (lines, random) => {
      const at = Math.floor(random() * lines.length);
      lines[at] = (lines[at] ?? '').replace('00:', '').replace('-->', '->');
    },
  ];
  const FILES = trials(60, 2000);
  const EACH = 50;

  it('lose no word of a cue whose time can be read, and never end in an error', () => {
    const random = seeded(SEED);
    let captions = 0;
    for (let n = 0; n < FILES; n++) {
      const words = Array.from({ length: EACH }, (_, i) => `word${n}x${i}y`);
      const lines = srtText(words.map((text, i) => ({ start: i * 2, end: i * 2 + 1.5, text }))).split('\r\n');
      for (let i = 0; i < 6; i++) BREAKS[Math.floor(random() * BREAKS.length)]!(lines, random);
      const { cues, notes } = read(lines.join('\n'));
      const found = new Set(
        cues.flatMap((cue) => locateWords(cue.text).map(({ from, to }) => cue.text.slice(from, to))),
      );
      const told = notes.map((note) => note.detail).join(' ');
      for (const word of words) {
        const stood = lines.some((line) => line.includes(word));
        expect([word, !stood || found.has(word) || told.includes(word)]).toEqual([word, true]);
      }
      captions += cues.length;
      for (const [i, cue] of cues.entries()) {
        expect(cue.end).toBeGreaterThan(cue.start);
        if (i > 0) expect(cue.start).toBeGreaterThanOrEqual(cues[i - 1]!.end - 1e-9);
      }
    }
    expect(captions).toBeGreaterThan(FILES * EACH * 0.9);
    soakFigure(
      'broken captions',
      `${captions} of ${FILES * EACH} captions in ${FILES} files: no word lost in silence`,
    );
  });

  it('are never too much, whatever their bytes', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 3000 }), (bytes) => {
        readCaptions(bytes);
      }),
    );
    fc.assert(
      fc.property(
        fc.string({ maxLength: 2000, unit: fc.constantFrom(...'0123:,.->\n <i/>&{}\\aW') }),
        (text) => {
          read(text);
        },
      ),
      { numRuns: 300 },
    );
    const long = `1\n${'0'.repeat(300_000)} --> ${':'.repeat(300_000)}\nA`;
    expect(() => read(long)).not.toThrow();
  });
});
