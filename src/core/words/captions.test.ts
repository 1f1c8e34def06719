import fc from 'fast-check';
import { rangeStarts } from '../cut/cut';
import { type Cue, MAX_CUE_TEXT, MAX_CUES } from './captions';
import {
  addCue,
  moveCue,
  snapCue,
  splitCue,
  mergeCues,
  shiftCues,
  stretchCues,
  tapCue,
  rewordCue,
  replaceWords,
} from './cue-edits';
import { type FaultCode, faultWords, lintCues } from './cue-lint';
import { findCue, toFileCues, listCues, toWrittenCues } from './cue-list';
import { splitGraphemes } from './graphemes';
import { DEFAULT_READING_LIMITS } from './reading-limits';
import { layOnSpeech } from './lay-on-speech';
import { breakLines, toScriptCues, layScript, scriptTexts } from './script';
import { spokenStarts, countSyllables, locateWords } from './speech-rhythm';
import type { Timeline } from './spans';

const RATE = { num: 25, den: 1 };
const masters = () => ({ rate: RATE, frames: 2500 });
const timelineOf = (cut: Timeline['cut']): Timeline => ({
  cut,
  starts: rangeStarts(cut, masters, RATE),
  masters,
  rate: RATE,
});
const range = (first: number, out: number) => ({ master: 'm', in: first, out });
const cue = (id: string, text: string, first: number, out: number): Cue => ({
  id,
  text,
  spans: [range(first, out)],
});
const whole = timelineOf([range(0, 2500)]);
const places = (cues: readonly Cue[], timeline = whole) =>
  listCues(cues, timeline).map(({ cue, at }) => [cue.text, at?.from, at?.to]);

const TWO = [cue('a', 'one two three four', 100, 200), cue('b', 'five', 210, 260)];

describe('cues', () => {
  it('are listed as they are seen, those outside the cut last', () => {
    const cut = timelineOf([range(205, 300), range(90, 120)]);
    expect(places(TWO, cut)).toEqual([
      ['five', 5, 55],
      ['one two three four', 105, 125],
    ]);
    expect(places(TWO, timelineOf([range(205, 300)]))).toEqual([
      ['five', 5, 55],
      ['one two three four', undefined, undefined],
    ]);
    expect(findCue(listCues(TWO, whole), 150)?.cue.id).toBe('a');
    expect(findCue(listCues(TWO, whole), 205)).toBeNull();
  });

  it('come from files timed to the clip or to the master, on the nearest frame', () => {
    const file = [{ start: 1.019, end: 2.021, text: 'A', line: 1, notes: [] }];
    const cut = timelineOf([range(500, 1000)]);
    expect(toFileCues(file, { kind: 'clip' }, cut).cues[0]?.spans).toEqual([range(525, 551)]);
    const master = { kind: 'master', master: 'm', frames: 2500 } as const;
    expect(toFileCues(file, master, cut, TWO).cues[0]).toMatchObject({ id: 'cue-1', spans: [range(25, 51)] });
    const late = [{ ...file[0]!, start: 200, end: 201 }];
    expect(toFileCues(late, master, cut)).toEqual({ cues: [], outside: late });
    expect(toFileCues(late, { kind: 'clip' }, cut).outside).toEqual(late);
  });

  it('are written in the clip’s own time', () => {
    expect(toWrittenCues(TWO, timelineOf([range(200, 300), range(100, 200)]))).toEqual([
      { start: 0.4, end: 2.4, text: 'five' },
      { start: 4, end: 8, text: 'one two three four' },
    ]);
  });

  it('are split at a place of their words, by syllables, and merged again', () => {
    const [first] = listCues(TWO, whole);
    const split = splitCue(TWO, first!, 8, whole)!;
    expect(places(split)).toEqual([
      ['one two', 100, 150],
      ['three four', 150, 200],
      ['five', 210, 260],
    ]);
    expect(new Set(split.map(({ id }) => id)).size).toBe(3);
    expect(splitCue(TWO, first!, 0, whole)).toBeNull();
    const [a, b] = listCues(split, whole);
    expect(places(mergeCues(split, a!, b!, whole)!)[0]).toEqual(['one two\nthree four', 100, 200]);
  });

  it('are shifted, one or all, as far as their masters go', () => {
    expect(places(shiftCues(TWO, new Set(['b']), -25, whole))[1]).toEqual(['five', 185, 235]);
    expect(places(shiftCues(TWO, new Set(['a', 'b']), -150, whole))[0]).toEqual([
      'one two three four',
      0,
      100,
    ]);
    expect(places(shiftCues(TWO, new Set(['a', 'b']), 9000, whole))).toEqual([
      ['one two three four', 2340, 2440],
      ['five', 2450, 2500],
    ]);
  });

  it('are shifted along the clip, also over its cuts', () => {
    // The clip plays 1200–1300 and then 100–300: in that order.
    const cut = timelineOf([range(1200, 1300), range(100, 300)]);
    const ids = new Set(['a', 'b']);
    const at = (cues: readonly Cue[]) => listCues(cues, cut).map((one) => one.at);
    expect(at(TWO)).toEqual([
      { from: 100, to: 200 },
      { from: 210, to: 260 },
    ]);
    const earlier = shiftCues(TWO, ids, -50, cut);
    expect(at(earlier)).toEqual([
      { from: 50, to: 150 },
      { from: 160, to: 210 },
    ]);
    expect(earlier[0]?.spans).toEqual([range(1250, 1300), range(100, 150)]);
    // Back again they are what they were; further than the clip goes none of them.
    expect(shiftCues(earlier, ids, 50, cut)).toEqual(TWO);
    expect(at(shiftCues(TWO, ids, 9000, cut))[1]).toEqual({ from: 250, to: 300 });
  });

  it('are stretched to begin and end where they should', () => {
    expect(places(stretchCues(TWO, { from: 0, to: 320 }, whole))).toEqual([
      ['one two three four', 0, 200],
      ['five', 220, 320],
    ]);
  });

  it('snap to what is near, and to nothing else', () => {
    const [first] = listCues(TWO, whole);
    expect(snapCue(first!, [96, 230], 10, whole).spans).toEqual([range(96, 200)]);
    expect(snapCue(first!, [50, 400], 10, whole)).toBe(first!.cue);
  });

  it('begin where they are tapped, and end the one before there', () => {
    const listed = listCues(TWO, whole);
    expect(places(tapCue(TWO, listed, 1, 180, whole))).toEqual([
      ['one two three four', 100, 180],
      ['five', 180, 230],
    ]);
    expect(places(tapCue(TWO, listed, 0, 205, whole))[0]).toEqual(['one two three four', 205, 210]);
  });

  it('are added where there is room', () => {
    const added = addCue(TWO, { from: 200, to: 300 }, whole)!;
    expect(places(added.cues)).toContainEqual(['', 200, 210]);
    expect(addCue(TWO, { from: 150, to: 300 }, whole)).toBeNull();
  });

  it('keep the times of their words only while there are as many', () => {
    const timed = { ...TWO[0]!, words: [0, 0.25, 0.5, 0.75] };
    expect(rewordCue(timed, 'uno due tre quattro').words).toHaveLength(4);
    expect(rewordCue(timed, 'uno').words).toBeUndefined();
  });

  it('have words replaced, as they are written or in either case', () => {
    expect(replaceWords(TWO, 'O', '0', true).places).toBe(0);
    const { cues, places: count } = replaceWords(TWO, 'O', '0', false);
    expect([cues[0]?.text, count]).toEqual(['0ne tw0 three f0ur', 3]);
    expect(replaceWords(TWO, 'a.b(', 'x', false).places).toBe(0);
    expect(replaceWords(TWO, 'five', '$&', true).cues[1]?.text).toBe('$&');
    expect(replaceWords(TWO, 'five', 'five', true).places).toBe(1);
  });

  it('are never longer or more than a clip can hold', () => {
    const long = 'x'.repeat(MAX_CUE_TEXT / 2);
    const replaced = replaceWords(TWO, 'o', long, true);
    expect(replaced).toEqual({ cues: TWO, places: 0, tooLong: 1 });
    const wordy = TWO.map((cue) => ({ ...cue, text: `${long} ${cue.text}` }));
    const [first, second] = listCues(wordy, whole);
    expect(mergeCues(wordy, first!, second!, whole)).toBeNull();
    const many = Array.from({ length: MAX_CUES }, (_, i) => ({ ...TWO[0]!, id: `many-${i}` }));
    expect(splitCue(many, listCues(TWO, whole)[0]!, 8, whole)).toBeNull();
    expect(addCue(many, { from: 1000, to: 1050 }, whole)).toBeNull();
  });

  it('stay where they are when they are moved outside the cut', () => {
    expect(moveCue(TWO[0]!, { from: 9000, to: 9010 }, whole)).toBe(TWO[0]);
  });
});

describe('what is wrong with cues', () => {
  const judged = (cues: readonly Cue[], cuts: readonly number[]) =>
    lintCues(listCues(cues, whole), { limits: DEFAULT_READING_LIMITS, cuts, rate: RATE, lacking });
  const lacking = (text: string) => (text.includes('ᚠ') ? ['ᚠ'] : []);
  const lint = (cues: readonly Cue[], cuts: readonly number[] = []) => {
    const found = judged(cues, cuts);
    return [...found].flatMap(([id, faults]) => faults.map((fault) => `${id} ${fault.code}`));
  };

  it.each<[FaultCode, Cue[], number[]]>([
    ['characters', [cue('a', 'x'.repeat(38), 0, 150)], []],
    ['lines', [cue('a', 'a\nb\nc', 0, 50)], []],
    // 50 characters in two seconds: 25 a second.
    ['speed', [cue('a', `${'word '.repeat(7)}\n${'word '.repeat(3)}`.trim(), 0, 50)], []],
    ['short', [cue('a', 'No', 0, 10)], []],
    ['long', [cue('a', 'No', 0, 200)], []],
    ['gap', [cue('a', 'No', 0, 50), cue('b', 'Yes', 51, 100)], []],
    ['overlap', [cue('a', 'No', 0, 50), cue('b', 'Yes', 40, 100)], []],
    ['over-cut', [cue('a', 'No', 0, 50)], [25]],
    ['empty', [cue('a', ' ', 0, 50)], []],
    ['no-font', [cue('a', 'ᚠ', 0, 50)], []],
  ])('is found: %s', (code, cues, cuts) => {
    expect(lint(cues, cuts)).toEqual([`a ${code}`]);
    const [fault] = judged(cues, cuts).get('a')!;
    expect(faultWords(fault!)).toMatch(/^(It|Line \d|\d|No font).*\.$/);
    expect(faultWords(fault!)).not.toMatch(/undefined|NaN/);
  });

  it('is nothing where limits are just met', () => {
    const line = 'x'.repeat(37);
    expect(lint([cue('a', line, 0, 55), cue('b', 'No', 57, 78)])).toEqual([]);
    expect(lint([cue('a', 'No', 0, 175)], [2, 173])).toEqual([]);
    // Emoji and letters with marks are one character each.
    expect(lint([cue('a', '👩‍👩‍👧‍👦'.repeat(37), 0, 100)])).toEqual([]);
  });
});

describe('a script', () => {
  const SCRIPT =
    'Every spring the wind comes back to the bay, and with it come the kites. Some are small. ' +
    'Others are as large as a house, and it takes six people to hold them down.\nThe day begins at noon.';

  it('is cut into cues within the limits, at sentences rather than inside them', () => {
    const texts = scriptTexts(SCRIPT, DEFAULT_READING_LIMITS);
    expect(texts.map((text) => text.replaceAll('\n', ' ')).join(' ')).toBe(SCRIPT.replaceAll('\n', ' '));
    expect(texts[texts.length - 1]).toBe('The day begins at noon.');
    for (const text of texts) expect(text).toMatch(/[.,]$/);
    for (const text of texts) {
      expect(text.split('\n').length).toBeLessThanOrEqual(2);
      for (const line of text.split('\n')) expect(splitGraphemes(line).length).toBeLessThanOrEqual(37);
    }
  });

  it('loses no word, whatever it is made of', () => {
    const words = fc.array(fc.stringMatching(/^[a-zé,.!?凧👋-]{1,50}$/), { minLength: 1, maxLength: 40 });
    fc.assert(
      fc.property(words, (all) => {
        const without = (text: string) => text.replace(/\s/gu, '');
        expect(without(scriptTexts(all.join(' '), DEFAULT_READING_LIMITS).join(''))).toBe(
          without(all.join('')),
        );
      }),
      { numRuns: 50 },
    );
  });

  it('has lines of about one length', () => {
    expect(breakLines('Some are small and some are as large as a house', DEFAULT_READING_LIMITS)).toBe(
      'Some are small and some\nare as large as a house',
    );
    expect(breakLines('x'.repeat(200), DEFAULT_READING_LIMITS)).toBeNull();
  });

  it('is laid on what is spoken: a phrase on each stretch of speech, and none over another', () => {
    const texts = ['Every spring the wind comes back.', 'Some are small.', 'The day begins at noon.'];
    const spoken = [
      { from: 50, to: 100 },
      { from: 150, to: 175 },
      { from: 230, to: 268 },
    ];
    const laid = layOnSpeech(texts, spoken, 400, DEFAULT_READING_LIMITS, RATE);
    expect(laid.map(({ from }) => from)).toEqual([50, 150, 230]);
    for (const [i, place] of laid.entries()) {
      expect(place.to).toBeGreaterThan(place.from);
      if (i > 0) expect(place.from).toBeGreaterThanOrEqual(laid[i - 1]!.to);
    }
  });

  it('goes with its own stretch of speech, however unevenly it is spoken', () => {
    const texts = [
      'Some are small.',
      'Others are as large as a house.',
      'Bring a coat.',
      'The day begins at noon.',
    ];
    const long = [30, 40, 14, 42];
    const spoken = long.map((frames, i) => ({ from: 50 + 80 * i, to: 50 + 80 * i + frames }));
    const laid = layOnSpeech(texts, spoken, 600, DEFAULT_READING_LIMITS, RATE);
    expect(laid.map(({ from }) => from)).toEqual(spoken.map(({ from }) => from));
    // A breath inside a phrase makes two stretches of it; a cough in between goes with none.
    const broken = [{ from: 50, to: 62 }, { from: 68, to: 82 }, ...spoken.slice(1)];
    expect(layOnSpeech(texts, broken, 600, DEFAULT_READING_LIMITS, RATE).map(({ from }) => from)).toEqual(
      spoken.map(({ from }) => from),
    );
  });

  it('is laid in order inside the clip, one frame at least for each, on whatever is heard', () => {
    const words = fc.array(fc.stringMatching(/^[a-z ]{1,40}$/), { minLength: 1, maxLength: 40 });
    const edges = fc.uniqueArray(fc.integer({ min: 0, max: 2000 }), { maxLength: 24 });
    fc.assert(
      fc.property(words, edges, (texts, all) => {
        const sorted = [...all].sort((a, b) => a - b);
        const spoken = Array.from({ length: sorted.length >> 1 }, (_, i) => ({
          from: sorted[2 * i]!,
          to: sorted[2 * i + 1]!,
        }));
        const laid = layOnSpeech(texts, spoken, 2001, DEFAULT_READING_LIMITS, RATE);
        expect(laid).toHaveLength(texts.length);
        for (const [i, { from, to }] of laid.entries()) {
          expect(to).toBeGreaterThan(from);
          if (i > 0) expect(from).toBeGreaterThanOrEqual(laid[i - 1]!.to);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('of as many cues as a clip may have tells how far it is', () => {
    const script = Array.from({ length: 5000 }, (_, i) => `Line ${i} of what is said.`).join('\n');
    const spoken = Array.from({ length: 2500 }, (_, i) => ({ from: 40 * i, to: 40 * i + 30 }));
    const reports: number[] = [];
    const asked = { script, spoken, whole: 100_000, limits: DEFAULT_READING_LIMITS, rate: RATE };
    const laid = layScript(asked, (done) => reports.push(done));
    expect(laid.places).toHaveLength(5000);
    expect(reports).toHaveLength(101);
    expect(reports).toEqual([...reports].sort((a, b) => a - b));
  });

  it('is spread over the clip where nobody is heard, and its cues follow the cut', () => {
    const cut = timelineOf([range(1000, 1500)]);
    const asked = { script: SCRIPT, spoken: [], whole: 500, limits: DEFAULT_READING_LIMITS, rate: cut.rate };
    const laid = layScript(asked);
    const cues = toScriptCues(laid, cut);
    expect(laid.texts).toHaveLength(cues.length);
    const listed = listCues(cues, cut);
    expect(listed.map(({ cue }) => cue.id)).toEqual(cues.map(({ id }) => id));
    expect(listed[0]?.at?.from).toBe(0);
    expect(listed[0]?.cue.spans[0]?.in).toBe(1000);
  });
});

describe('words in time', () => {
  // Syllables as a dictionary of English hyphenates these words; from memory.
  it.each([
    ['kite', 1],
    ['festival', 3],
    ['everybody', 5],
    ['noon', 1],
    ['Windle', 2],
  ])('have the syllables of %s', (word, count) =>
    expect(Math.abs(countSyllables(word) - count)).toBeLessThanOrEqual(1),
  );

  it('begin in order, the first with its cue, long words after longer', () => {
    const starts = spokenStarts('the festival of kites');
    expect(starts[0]).toBe(0);
    expect([...starts].sort((a, b) => a - b)).toEqual(starts);
    expect(starts[2]! - starts[1]!).toBeGreaterThan(starts[1]! - starts[0]!);
    expect(locateWords('a  b\nc').map(({ from, to }) => [from, to])).toEqual([
      [0, 1],
      [3, 4],
      [5, 6],
    ]);
    expect(spokenStarts('')).toEqual([]);
  });
});
