import fc from 'fast-check';
import { fontSetting } from '../../../tests/font-setting';
import { splitGraphemes } from './graphemes';
import { inkBox } from './ink-box';
import { findMissingGraphemes } from './font-runs';
import { layText } from './lay-text';
import type { TextArt } from './text-art';
import { PLAIN_PLATE, PLAIN_STYLE, type TextStyle } from './text-style';

const setting = fontSetting();
const art = (text: string, change: Partial<TextArt> = {}, style: Partial<TextStyle> = {}): TextArt => ({
  text,
  style: { ...PLAIN_STYLE, outline: null, ...style },
  box: { x: 100, y: 200, width: 800, height: 400 },
  seat: 'middle',
  size: 80,
  mark: null,
  ground: null,
  ...change,
});
const linesOf = (laid: ReturnType<typeof layText>) =>
  laid.lines.map((line) => line.runs.map((run) => run.text).join(''));

describe('laying words out', () => {
  it('breaks lines where the box ends, and puts them in its middle', () => {
    const laid = layText(art('Kite Day at Windle Bay begins at noon'), setting);
    expect(linesOf(laid).length).toBeGreaterThan(1);
    expect(linesOf(laid).join(' ')).toBe('Kite Day at Windle Bay begins at noon');
    for (const line of laid.lines) {
      expect(line.width).toBeLessThanOrEqual(800);
      expect(line.x + line.width / 2).toBeCloseTo(400, 3);
    }
    const [first, last] = [laid.lines[0]!, laid.lines[laid.lines.length - 1]!];
    expect((first.top + last.bottom) / 2).toBeCloseTo(200, 3);
    expect(laid.over).toBe(false);
  });

  it('aligns to either side, and seats at the top or the bottom', () => {
    const left = layText(art('Noon', { seat: 'top' }, { align: 'left' }), setting).lines[0]!;
    const right = layText(art('Noon', { seat: 'bottom' }, { align: 'right' }), setting).lines[0]!;
    expect([left.x, left.top]).toEqual([0, 0]);
    expect([right.x + right.width, right.bottom]).toEqual([800, 400]);
  });

  it('finds the largest size at which the words fit', () => {
    fc.assert(
      fc.property(
        fc.array(fc.stringMatching(/^[a-z]{1,9}$/), { minLength: 1, maxLength: 12 }),
        fc.integer({ min: 120, max: 1000 }),
        fc.integer({ min: 60, max: 600 }),
        (words, width, height) => {
          const fitted = art(words.join(' '), { size: null, box: { x: 0, y: 0, width, height } });
          const laid = layText(fitted, setting);
          if (laid.size > 4) {
            expect(laid.over).toBe(false);
            expect(layText({ ...fitted, size: laid.size + 0.5 }, setting).over).toBe(true);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('breaks no grapheme, also where a word is wider than its box', () => {
    const word = '👩‍👩‍👧‍👦e\u0301🇺🇳👋🏽'.repeat(6);
    const laid = layText(art(word, { box: { x: 0, y: 0, width: 200, height: 900 } }), setting);
    expect(laid.lines.length).toBeGreaterThan(3);
    expect(laid.over).toBe(true);
    expect(linesOf(laid).flatMap(splitGraphemes)).toEqual(splitGraphemes(word));
  });

  it('stands right to left where the words do, with numbers and Latin words the other way round', () => {
    // "Kite day" in Hebrew, a number, and a Latin word: UAX #9 puts the first word rightmost.
    const line = art('יום העפיפון 2026 Windle', { box: { x: 0, y: 0, width: 1400, height: 400 } });
    const laid = layText(line, setting);
    const runs = [...laid.lines.flatMap((line) => line.runs)].sort((a, b) => a.x - b.x);
    expect(runs.map((run) => run.text.trim())[0]).toBe('Windle');
    expect(runs[runs.length - 1]?.text).toContain('יום');
    expect(runs[runs.length - 1]).toMatchObject({ rightToLeft: true, family: 'hebrew' });
    expect(runs.find((run) => run.text.includes('2026'))?.rightToLeft).toBe(false);
    for (const [i, run] of runs.entries()) {
      if (i > 0) expect(run.x).toBeCloseTo(runs[i - 1]!.x + runs[i - 1]!.width, 3);
    }
  });

  it('draws every script in a font that has it', () => {
    const families = (text: string) => [
      ...new Set(layText(art(text), setting).lines.flatMap((line) => line.runs.map((run) => run.family))),
    ];
    expect(families('Kite')).toEqual(['plain']);
    expect(families('Χαρταετός')).toEqual(['plain']);
    expect(families('Змей')).toEqual(['plain']);
    expect(families('طائرة')).toEqual(['arabic']);
    expect(families('पतंग')).toEqual(['devanagari']);
    expect(families('凧あげ')).toEqual(['japanese']);
    expect(families('ว่าว')).toEqual(['thai']);
    expect(families('🪁')).toEqual(['emoji']);
    expect(families('1')).toEqual(['plain']);
    expect(families('1️⃣')).toEqual(['emoji']);
  });

  it('tells which characters no font has', () => {
    expect(findMissingGraphemes('Kite 🪁 ꀀ\nꀀ', 'plain', setting.book)).toEqual(['ꀀ']);
    expect(findMissingGraphemes('All of it\u00a0is here', 'hand', setting.book)).toEqual([]);
  });

  it('colours one word of a line without moving the others', () => {
    const plain = layText(art('one two three'), setting).lines[0]!;
    const marked = layText(art('one two three', { mark: { from: 4, to: 7, colour: '#FF0000' } }), setting)
      .lines[0]!;
    expect(marked.runs.map((run) => [run.text, run.colour])).toEqual([
      ['one ', PLAIN_STYLE.colour],
      ['two', '#FF0000'],
      [' three', PLAIN_STYLE.colour],
    ]);
    expect(marked.width).toBeCloseTo(plain.width, 3);
  });

  it('keeps a plate and its words inside the box', () => {
    const plate = { ...PLAIN_PLATE, pad: 0.5 };
    const fitted = art('Windle Bay', { size: null }, { plate });
    const laid = layText(fitted, setting);
    const [line] = laid.lines;
    expect(line!.x).toBeGreaterThanOrEqual(0.5 * laid.size - 0.01);
    expect(line!.width + laid.size).toBeLessThanOrEqual(800.01);
  });
});

describe('the pixels that words may touch', () => {
  const canvas = { width: 1080, height: 1920 };

  it('lie on even edges inside the canvas, around all lines', () => {
    const laid = layText(art('Kite Day'), setting);
    const box = inkBox(art('Kite Day'), laid, canvas)!;
    for (const edge of Object.values(box)) expect(edge % 2).toBe(0);
    const [line] = laid.lines;
    expect(box.x).toBeLessThan(100 + line!.x);
    expect(box.x + box.width).toBeGreaterThan(100 + line!.x + line!.width);
    const beside = art('Kite Day', { box: { x: 5000, y: 0, width: 500, height: 100 } });
    expect(inkBox(beside, layText(beside, setting), canvas)).toBeNull();
  });

  it('are the whole box where it is filled', () => {
    const card = art('', { ground: '#102030', box: { x: 0, y: 0, ...canvas } });
    expect(inkBox(card, layText(card, setting), canvas)).toEqual({ x: 0, y: 0, ...canvas });
  });
});
