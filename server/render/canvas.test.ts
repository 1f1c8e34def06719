import { readFileSync } from 'node:fs';
import path from 'node:path';
import { createHash } from 'node:crypto';
import type { TextArt } from '../../src/core/words/text-art';
import { PLAIN_STYLE } from '../../src/core/words/text-style';
import { drawnWords } from '../../tests/drawn-words';
import { openFonts } from './canvas';

const FILE = path.resolve(__dirname, '../../public/fonts/caveat-latin-400-normal.woff2');
const fingerprint = createHash('sha256').update(readFileSync(FILE)).digest('hex');
const OWN = `own-${fingerprint.slice(0, 16)}`;

const art = (family: string): TextArt => ({
  text: 'Low tide',
  style: { ...PLAIN_STYLE, family, weight: 400 },
  ...{ box: { x: 0, y: 0, width: 800, height: 300 }, seat: 'top', size: 90, mark: null, ground: null },
});

describe('words without a browser', () => {
  it('have a font of the person’s own where its file is among the masters', async () => {
    const fonts = await openFonts({ masters: { [fingerprint]: FILE } });
    const [own, shipped] = await drawnWords(fonts, [art(OWN), art('hand')]);
    // The same file, once as it ships and once as a person’s own; a shipped family has measures of all its files.
    expect(inked(own!.pixels)).toBeCloseTo(inked(shipped!.pixels), -2);
    expect(own!.rect.width).toBe(shipped!.rect.width);
  });

  it('are drawn with a font that ships where their own is not there', async () => {
    const [gone] = await drawnWords(await openFonts({ masters: {} }), [art(OWN)]);
    expect(inked(gone!.pixels)).toBeGreaterThan(1000);
  });
});

/** Pixels that are covered by more than half. */
const inked = (pixels: string): number =>
  Array.from({ length: pixels.length / 4 }, (_, n) => pixels.charCodeAt(4 * n + 3)).filter(
    (alpha) => alpha > 127,
  ).length;
