import { readFileSync } from 'node:fs';
import { splitGraphemes } from './graphemes';
import { splitIntoPieces } from './pieces';

/** The cases of a test file of the Unicode Character Database: the pieces that each text must come apart into. */
function casesIn(file: string): { pieces: string[]; line: string }[] {
  return readFileSync(`node_modules/${file}`, 'utf8')
    .split('\n')
    .map((line) => line.split('#')[0]?.trim() ?? '')
    .filter((line) => line !== '')
    .map((line) => ({
      line,
      pieces: line
        .split('÷')
        .map((piece) => piece.match(/[0-9A-F]{4,6}/g) ?? [])
        .filter((points) => points.length > 0)
        .map((points) => points.map((point) => String.fromCodePoint(parseInt(point, 16))).join('')),
    }));
}

/** Lone surrogates are no text, and what follows them is joined by the engine. */
const LONE = /\bD800\b/;

describe('graphemes', () => {
  // GraphemeBreakTest.txt of Unicode 10.0 (UAX #29), as the npm package grapheme-splitter 1.0.4 ships it.
  const cases = casesIn('grapheme-splitter/tests/GraphemeBreakTest.txt').filter(
    ({ line }) => !LONE.test(line),
  );
  // What Unicode 11 changed: skin tones extend whatever stands before them, and a joiner joins only pictures (GB11).
  const changed = /1F3FB|200D|1F466|1F468/;

  it('come apart as the Unicode test file says', () => {
    const same = cases.filter(({ line }) => !changed.test(line));
    expect(same.length).toBeGreaterThan(500);
    for (const { pieces, line } of same)
      expect([line, splitGraphemes(pieces.join(''))]).toEqual([line, pieces]);
  });

  it.each([
    ['a family', '👩‍👩‍👧‍👦'],
    ['a flag', '🇺🇳'],
    ['a skin tone', '👋🏽'],
    ['a key', '1️⃣'],
    ['a letter with marks', 'e\u0301\u0323'],
    ['a syllable of Hangul', '\u1112\u1161\u11ab'],
    ['a consonant with its vowel in Devanagari', 'कि'],
  ])('keep %s whole', (_, text) => expect(splitGraphemes(text)).toEqual([text]));
});

describe('places where a line may break', () => {
  // LineBreakTest.txt of Unicode 13.0 (UAX #14), as the npm package @foliojs-fork/linebreak ships it.
  const cases = casesIn('@foliojs-fork/linebreak/test/LineBreakTest.txt').filter(
    ({ line }) => !LONE.test(line),
  );

  it('are those of the Unicode test file', () => {
    const wrong = cases.filter(({ pieces }) => {
      const whole = new Set<number>();
      let at = 0;
      for (const grapheme of splitGraphemes(pieces.join(''))) whole.add((at += grapheme.length));
      // Never inside a grapheme: where the file would break one, we do not.
      const wanted: string[] = [''];
      at = 0;
      for (const piece of pieces) {
        wanted[wanted.length - 1] += piece;
        if (whole.has((at += piece.length))) wanted.push('');
      }
      if (wanted[wanted.length - 1] === '') wanted.pop();
      return (
        JSON.stringify(splitIntoPieces(pieces.join('')).map(({ text }) => text)) !== JSON.stringify(wanted)
      );
    });
    expect(cases.length).toBeGreaterThan(7000);
    // The library keeps a number with signs and stops before it together (LB25 before Unicode 13's own rule), and does
    // not tell wide brackets from narrow ones (LB30): 58 cases, all of them of these kinds.
    const known = /\b(2329|FF08|002E ÷ 003[0-9]|0024|0025|002C|007D|0028|0030)\b/;
    expect(wrong.filter(({ line }) => !known.test(line))).toEqual([]);
    expect(wrong.length).toBeLessThanOrEqual(58);
  });

  it('end a line where the text says so, and nowhere inside a word', () => {
    expect(splitIntoPieces('One two\nthree-four')).toEqual([
      { text: 'One ', ends: false },
      { text: 'two\n', ends: true },
      { text: 'three-', ends: false },
      { text: 'four', ends: false },
    ]);
    expect(splitIntoPieces('祭りの日').length).toBeGreaterThan(1);
    expect(splitIntoPieces('a\u00a0b')).toHaveLength(1);
    expect(splitIntoPieces('')).toEqual([]);
  });
});
