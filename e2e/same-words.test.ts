import { FAMILIES } from '@core/words/families';
import type { TextArt } from '@core/words/text-art';
import {
  PLAIN_OUTLINE,
  PLAIN_PLATE,
  PLAIN_SHADOW,
  PLAIN_STYLE,
  type TextStyle,
} from '@core/words/text-style';
import { openServerFonts } from '../server/render/canvas';
import { bundled } from '../tests/bundled';
import { type DrawnWords, drawnWords } from '../tests/drawn-words';
import { atTheApp } from './app';

const here = atTheApp();

const art = (text: string, style: Partial<TextStyle> = {}): TextArt => ({
  text,
  style: { ...PLAIN_STYLE, outline: null, ...style },
  ...{ box: { x: 90, y: 900, width: 900, height: 300 }, seat: 'middle', size: 72, mark: null, ground: null },
});

const CASES: Record<string, TextArt> = {
  ...Object.fromEntries(
    Object.keys(FAMILIES).map((family) => [family, art('Three days on the river', { family })]),
  ),
  light: art('A quiet morning', { weight: 400 }),
  plate: art('Under a plate', { plate: PLAIN_PLATE }),
  outline: art('With an outline', { outline: PLAIN_OUTLINE }),
  shadow: art('With a shadow', { shadow: PLAIN_SHADOW }),
  fitted: { ...art('As large as the box'), size: null },
  spoken: { ...art('Every word in turn'), mark: { from: 6, to: 10, colour: '#D9A441' } },
  arabic: art('صباح الخير 2026'),
  hebrew: art('בוקר טוב, עולם'),
  devanagari: art('नमस्ते दुनिया'),
  thai: art('สวัสดีตอนเช้า'),
  japanese: art('川辺の朝です'),
  emoji: art('Up we go 🚣🏽‍♀️⛰️'),
  'of several files': art('Żółć, øre, čeština, Ελλάδα, Привет'),
};

describe('words on the picture', () => {
  it('are drawn by the server as by the browser, pixel for pixel', async () => {
    const arts = Object.values(CASES);
    await here.visitor.page.evaluate(await bundled('tests/draw-words.ts'));
    const browser = await here.visitor.page.evaluate(
      (asked) =>
        (globalThis as unknown as { drawnWords(arts: unknown): Promise<DrawnWords[]> }).drawnWords(asked),
      arts as unknown,
    );
    const { fonts } = await openServerFonts({ masters: {} });
    const server = await drawnWords(fonts, arts);
    const others = Object.keys(CASES).filter((_, n) => server[n]!.pixels !== browser[n]!.pixels);
    expect(others).toEqual([]);
    expect(server.map(({ rect }) => rect)).toEqual(browser.map(({ rect }) => rect));
    expect(new Set(server.map(({ pixels }) => pixels)).size).toBe(arts.length);
  });
});
