import { GlobalFonts } from '@napi-rs/canvas';
import type { TextArt } from '../../src/core/words/text-art';
import { PLAIN_STYLE } from '../../src/core/words/text-style';
import { drawnWords } from '../../tests/drawn-words';
import { OWN_FONT } from '../../tests/worded-job';
import { openServerFonts } from './canvas';

const art = (family: string): TextArt => ({
  text: 'Low tide',
  style: { ...PLAIN_STYLE, family, weight: 400 },
  ...{ box: { x: 0, y: 0, width: 800, height: 300 }, seat: 'top', size: 90, mark: null, ground: null },
});

/** Lists the registered fonts that are the person's own. */
const held = () => GlobalFonts.families.filter(({ family }) => family.includes(OWN_FONT.family));

describe('words without a browser', () => {
  it('have a font of the person’s own where its file is among the masters', async () => {
    const { fonts, close } = await openServerFonts({ masters: { [OWN_FONT.fingerprint]: OWN_FONT.file } });
    const [own, shipped] = await drawnWords(fonts, [art(OWN_FONT.family), art(OWN_FONT.likeness)]);
    // The same file, once as it ships and once as a person’s own; a shipped family has measures of all its files.
    expect(inked(own!.pixels)).toBeCloseTo(inked(shipped!.pixels), -2);
    expect(own!.rect.width).toBe(shipped!.rect.width);
    // Their own is let go; what ships stays.
    expect(held()).toHaveLength(1);
    close();
    expect(held()).toEqual([]);
  });

  it('are drawn with a font that ships where their own is not there', async () => {
    const { fonts } = await openServerFonts({ masters: {} });
    const [gone] = await drawnWords(fonts, [art(OWN_FONT.family)]);
    expect(inked(gone!.pixels)).toBeGreaterThan(1000);
  });
});

/** Pixels that are covered by more than half. */
const inked = (pixels: string): number =>
  Array.from({ length: pixels.length / 4 }, (_, n) => pixels.charCodeAt(4 * n + 3)).filter(
    (alpha) => alpha > 127,
  ).length;
