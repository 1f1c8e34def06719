import { chooseReadableColour, withBandWords } from './banded-clip';
import { contrastRatio, hasEnoughContrast, computeLuminance } from './contrast';
import { findMinContrast } from './contrast-cells';
import { sampleContrastFrames } from './contrast-frames';

const ratio = (a: string, b: string): number => contrastRatio(computeLuminance(a), computeLuminance(b));

describe('contrast', () => {
  // WCAG 2.2: the definitions of relative luminance and contrast ratio; white on black is 21:1 there, and a colour on
  // itself 1:1. "Understanding 1.4.3" gives #767676 on white as the lightest grey that has 4.5:1, and "G18" and "F24"
  // rest on the same formula. From memory: the pages could not be opened here.
  it.each([
    ['#FFFFFF', '#000000', 21],
    ['#767676', '#FFFFFF', 4.54],
    ['#777777', '#FFFFFF', 4.48],
    ['#949494', '#FFFFFF', 3.03],
    ['#0000FF', '#FFFFFF', 8.59],
    ['#FF0000', '#FFFFFF', 4.0],
    ['#00FF00', '#FFFFFF', 1.37],
    ['#123456', '#123456', 1],
  ])('of %s and %s is %f, either way round', (a, b, wanted) => {
    expect(ratio(a, b)).toBeCloseTo(wanted, 2);
    expect(ratio(b, a)).toBeCloseTo(wanted, 2);
  });

  it('needs to be less for letters that a phone shows large', () => {
    // 67 pixels of 1080 are 24.2 of 390.
    expect(hasEnoughContrast(67, 400, 1080)).toBe(3);
    expect(hasEnoughContrast(66, 400, 1080)).toBe(4.5);
    expect(hasEnoughContrast(52, 700, 1080)).toBe(3);
  });

  const line = (text: string) => ({ text, spans: null });

  it('is enough for the words of a banded clip on bands of any colour', () => {
    for (const colour of ['#FAF6EC', '#1F2B33', '#2B5C8A', '#808080', '#FF0000', '#00FF00']) {
      expect(ratio(chooseReadableColour(colour), colour)).toBeGreaterThan(3);
      const blocks = withBandWords([], { above: [line('Kite Day')], below: [line(' ')] }, colour);
      expect(blocks.map((block) => [block.on, block.style.colour])).toEqual([
        ['above', chooseReadableColour(colour)],
      ]);
    }
  });
});

describe('contrast on real pixels', () => {
  const [width, height] = [60, 20];
  /** Letters are a bar of four rows across the middle, with a rim of two rows around it. */
  const pixels = (light: (x: number) => number) => {
    const behind = new Uint8ClampedArray(width * height * 4);
    const letters = new Uint8Array(width * height);
    const rim = new Uint8Array(width * height);
    for (let at = 0; at < width * height; at++) {
      const y = Math.floor(at / width);
      behind.fill(light(at % width), 4 * at, 4 * at + 3);
      letters[at] = y >= 8 && y < 12 ? 255 : 0;
      rim[at] = y >= 6 && y < 14 ? 255 : 0;
    }
    return { width, height, behind, letters, rim };
  };

  it('is that of the letters with an even ground', () => {
    expect(
      findMinContrast(
        pixels(() => 0),
        10,
        1,
      ),
    ).toBeCloseTo(21, 6);
    expect(
      findMinContrast(
        pixels(() => 255),
        10,
        1,
      ),
    ).toBeCloseTo(1, 6);
    // #767676 and white: 4.54 (WCAG 2.2, from memory).
    expect(
      findMinContrast(
        pixels(() => 0x76),
        10,
        1,
      ),
    ).toBeCloseTo(4.54, 2);
  });

  it('is the worst of all places, not the mean', () => {
    const mostlyDark = pixels((x) => (x >= 50 ? 240 : 10));
    expect(findMinContrast(mostlyDark, 10, 1)).toBeLessThan(1.3);
  });

  it('is none where there are no letters', () => {
    const none = { ...pixels(() => 0), rim: new Uint8Array(width * height) };
    expect(findMinContrast(none, 10, 1)).toBeNull();
  });
});

describe('frames that are looked at', () => {
  it('are the first, the last and some between, or one of each of many', () => {
    expect(sampleContrastFrames([{ from: 10, to: 20 }], 4)).toEqual([10, 13, 16, 19]);
    expect(sampleContrastFrames([{ from: 10, to: 12 }], 4)).toEqual([10, 11]);
    const many = Array.from({ length: 100 }, (_, i) => ({ from: 10 * i, to: 10 * i + 10 }));
    const frames = sampleContrastFrames(many, 40);
    expect(frames.length).toBeLessThanOrEqual(40);
    expect(frames[0]).toBe(5);
  });
});
