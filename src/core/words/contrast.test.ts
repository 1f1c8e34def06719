import { bandBlocks, readableOn } from './banded-clip';
import { contrastRatio, enoughContrast, luminanceOf } from './contrast';

const ratio = (a: string, b: string): number => contrastRatio(luminanceOf(a), luminanceOf(b));

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
    expect(enoughContrast(67, 400, 1080)).toBe(3);
    expect(enoughContrast(66, 400, 1080)).toBe(4.5);
    expect(enoughContrast(52, 700, 1080)).toBe(3);
  });

  it('is enough for the words of a banded clip on bands of any colour', () => {
    for (const colour of ['#FAF6EC', '#1F2B33', '#2B5C8A', '#808080', '#FF0000', '#00FF00']) {
      expect(ratio(readableOn(colour), colour)).toBeGreaterThan(3);
      const blocks = bandBlocks({ above: 'Kite Day', below: ' ' }, colour, (n) => `block-${n}`);
      expect(blocks.map((block) => [block.on, block.style.colour])).toEqual([['above', readableOn(colour)]]);
    }
  });
});
