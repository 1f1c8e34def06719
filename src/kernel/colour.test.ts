import { readFileSync } from 'node:fs';
import { conversion, fromYcc, rgbToCodes } from './colour';
import { Kernel } from './kernel';
import { readPlane } from './test-pictures';

/** 8-bit Y, Cb, Cr of full-scale R, G, B (0…1) under a matrix, by the standards' own equations. */
function coded(
  rgb: [number, number, number],
  red: number,
  blue: number,
  full: boolean,
): [number, number, number] {
  const y = red * rgb[0] + (1 - red - blue) * rgb[1] + blue * rgb[2];
  const cb = (rgb[2] - y) / (2 * (1 - blue));
  const cr = (rgb[0] - y) / (2 * (1 - red));
  const [luma, chroma, offset] = full ? [255, 255, 0] : [219, 224, 16];
  return [offset + luma * y, 128 + chroma * cb, 128 + chroma * cr];
}
/** Colour bars at 75 %, as in ITU-R BT.471. */
const BARS: [number, number, number][] = [
  [0.75, 0.75, 0.75],
  [0.75, 0.75, 0],
  [0, 0.75, 0.75],
  [0, 0.75, 0],
  [0.75, 0, 0.75],
  [0.75, 0, 0],
  [0, 0, 0.75],
];

describe('colour', () => {
  it('of limited-range BT.709 needs no conversion, nor does colour that is not told', () => {
    expect(conversion({ matrix: 'bt709', fullRange: false })).toBeNull();
    expect(conversion({})).toBeNull();
    expect(() => conversion({ matrix: 'rgb' })).toThrow(RangeError);
  });

  // Matrices: ITU-R BT.601-7 item 2.5.1 (0.299, 0.114), BT.709-6 item 3.2 (0.2126, 0.0722), BT.2020-2 table 4.
  it.each([
    ['smpte170m', 0.299, 0.114, false],
    ['smpte170m', 0.299, 0.114, true],
    ['bt709', 0.2126, 0.0722, true],
    ['bt2020-ncl', 0.2627, 0.0593, false],
  ] as const)(
    'bars in %s (%d, %d, full %s) come out as the same bars in BT.709',
    async (matrix, red, blue, fullRange) => {
      const kernel = await Kernel.load(readFileSync('src/kernel/kernel.wasm'));
      const coefficients = conversion({ matrix, fullRange });
      if (!coefficients) throw new Error('a conversion was due');
      for (const bar of BARS) {
        const picture = kernel.target(16, 16);
        coded(bar, red, blue, fullRange).forEach((value, i) => {
          const { offset, stride, height } = picture.planes[i]!;
          kernel.bytes(offset, stride * height).fill(Math.round(value));
        });
        kernel.convert(picture, coefficients);
        const wanted = coded(bar, 0.2126, 0.0722, false);
        [0, 1, 2].forEach((i) => {
          const value = readPlane(kernel, picture, i).data[9] as number;
          expect(Math.abs(value - (wanted[i] as number))).toBeLessThanOrEqual(1.6);
        });
      }
    },
  );
});

describe('packed pixels of red, green and blue', () => {
  let kernel: Kernel;
  beforeAll(async () => {
    kernel = await Kernel.load(readFileSync('src/kernel/kernel.wasm'));
  });

  // Matrices as above: what an engine made of the codes goes back to them, to a level.
  it.each([
    ['bt709', false, false, Infinity],
    ['bt709', true, true, Infinity],
    ['smpte170m', false, true, Infinity],
    ['bt2020-ncl', false, false, Infinity],
    // An engine that adds at most 2 of a code of Cb to blue.
    ['bt709', false, true, 2],
    ['smpte170m', false, true, 2],
  ])(
    'come back to the codes of %s, full range: %s, blue first: %s, most blue: %s',
    (matrix, fullRange, blueFirst, most) => {
      const facts = { matrix, fullRange };
      const weightOfBlue: Record<string, number> = { bt709: 0.0722, smpte170m: 0.114, 'bt2020-ncl': 0.0593 };
      const width = BARS.length;
      const from = kernel.packed(width, 2);
      const codes = BARS.map((bar) => {
        const weights = {
          bt709: [0.2126, 0.0722],
          smpte170m: [0.299, 0.114],
          'bt2020-ncl': [0.2627, 0.0593],
        }[matrix]!;
        return coded(bar, weights[0]!, weights[1]!, fullRange);
      });
      codes.forEach((code, x) => {
        const [red, green, blue] = fromYcc(facts, code).map((value) => value * 255) as [
          number,
          number,
          number,
        ];
        const gain = (2 * (1 - weightOfBlue[matrix]!) * 255) / 224;
        const lost = Math.max(0, gain - most) * (code[1] - 128);
        const rgb = [red, green, blue - lost].map((value) => Math.min(255, Math.max(0, Math.round(value))));
        const bytes = blueFirst ? [...rgb].reverse() : rgb;
        for (let y = 0; y < 2; y++) kernel.bytes(from + (y * width + x) * 4, 4).set([...bytes, 255]);
      });
      const picture = kernel.source('I444', width, 2);
      kernel.splitRgb(picture, rgbToCodes(facts, most), blueFirst);
      codes.forEach((code, x) => {
        code.forEach((value, index) => {
          expect(Math.abs(readPlane(kernel, picture, index).data[width + x]! - value)).toBeLessThanOrEqual(1);
        });
      });
    },
  );
});
