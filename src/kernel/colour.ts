/** Colour facts that a decoder states; missing ones take the usual meaning. */
export interface ColourFacts {
  matrix?: string | null | undefined;
  primaries?: string | null | undefined;
  transfer?: string | null | undefined;
  fullRange?: boolean | null | undefined;
}

/**
 * Luma weights of red and blue. Sources: ITU-R BT.709-6 item 3.2, BT.601-7 item 2.5.1, BT.2020-2 table 4.
 */
const LUMA_WEIGHTS: Record<string, { red: number; blue: number }> = {
  bt709: { red: 0.2126, blue: 0.0722 },
  bt470bg: { red: 0.299, blue: 0.114 },
  smpte170m: { red: 0.299, blue: 0.114 },
  'bt2020-ncl': { red: 0.2627, blue: 0.0593 },
};
/** Limited range: luma spans 219 steps from 16, chroma 224 (BT.709-6 item 4.6). */
const LUMA_SPAN = 219;
const CHROMA_SPAN = 224;
const FULL_SPAN = 255;

/** @throws RangeError for a matrix that this program does not know. */
function computeWeights(matrix: string | null | undefined): { red: number; blue: number } {
  const name = matrix ?? 'bt709';
  const weights = LUMA_WEIGHTS[name];
  if (!weights) throw new RangeError(`colour matrix ${name} is not known`);
  return weights;
}

/**
 * Coefficients for `Kernel.convert` from a source's colour to limited-range BT.709, or null when the source is
 * that already. Grey maps to grey, so chroma never takes from luma.
 *
 * @returns luma gain, luma offset, luma from Cb, from Cr, then Cb' from Cb, Cr and Cr' from Cb, Cr.
 * @throws RangeError for a matrix that this program does not know.
 */
export function conversion(facts: ColourFacts): readonly number[] | null {
  const from = computeWeights(facts.matrix);
  const to = computeWeights('bt709');
  const full = facts.fullRange === true;
  if (from.red === to.red && !full) return null;
  const lumaScale = LUMA_SPAN / (full ? FULL_SPAN : LUMA_SPAN);
  const chromaScale = CHROMA_SPAN / (full ? FULL_SPAN : CHROMA_SPAN);
  // Cb and Cr are (B−Y)/(2(1−Kb)) and (R−Y)/(2(1−Kr)); solve for the other matrix's Y, Cb, Cr at Y = 0.
  const image = (cb: number, cr: number): [number, number, number] => {
    const blue = 2 * (1 - from.blue) * cb;
    const red = 2 * (1 - from.red) * cr;
    const green = -(from.red * red + from.blue * blue) / (1 - from.red - from.blue);
    const y = to.red * red + (1 - to.red - to.blue) * green + to.blue * blue;
    return [y, (blue - y) / (2 * (1 - to.blue)), (red - y) / (2 * (1 - to.red))];
  };
  const [yb, bb, rb] = image(1, 0);
  const [yr, br, rr] = image(0, 1);
  // One chroma step is 1/224 (or 1/255) of the unit; luma comes back in 219 steps.
  const perStep = 1 / (full ? FULL_SPAN : CHROMA_SPAN);
  return [
    lumaScale,
    full ? 16 : 0,
    yb * LUMA_SPAN * perStep,
    yr * LUMA_SPAN * perStep,
    bb * chromaScale,
    br * chromaScale,
    rb * chromaScale,
    rr * chromaScale,
  ];
}

type Triple = [number, number, number];

/** Red, green and blue signals, 0…1 and past it, of codes of luma, Cb and Cr, 0…255. @throws RangeError */
export function fromYcc({ matrix, fullRange }: ColourFacts, [y, cb, cr]: Triple): Triple {
  const weights = computeWeights(matrix);
  const luma = fullRange ? y / FULL_SPAN : (y - 16) / LUMA_SPAN;
  const span = fullRange ? FULL_SPAN : CHROMA_SPAN;
  const blue = luma + (2 * (1 - weights.blue) * (cb - 128)) / span;
  const red = luma + (2 * (1 - weights.red) * (cr - 128)) / span;
  return [red, (luma - weights.red * red - weights.blue * blue) / (1 - weights.red - weights.blue), blue];
}

/**
 * Computes what a byte of red, of green and of blue adds to the codes of luma, Cb and Cr of a matrix and a
 * range, and what these begin with: four groups of four for `Kernel.splitRgb`. The inverse of {@link
 * fromYcc}.
 *
 * @param maxBlue what a code of Cb added to a byte of blue at most on the way to red, green and blue.
 * @throws RangeError for a matrix that this program does not know.
 */
export function rgbToCodes({ matrix, fullRange }: ColourFacts, maxBlue = Infinity): readonly number[] {
  const { red, blue } = computeWeights(matrix);
  const [luma, chroma, black] = fullRange ? [1, 1, 0] : [LUMA_SPAN / FULL_SPAN, CHROMA_SPAN / FULL_SPAN, 16];
  const gain = 2 * (1 - blue);
  const held = Math.min(gain, maxBlue * chroma);
  // Where blue was held back by (gain − held) of Cb, that share of it belongs to luma's sum again.
  const lack = (blue * (gain - held)) / held;
  const weights = [red / (1 + lack), (1 - red - blue) / (1 + lack), (blue + lack) / (1 + lack)];
  const groups = weights.map((weight, i) => [
    luma * weight,
    (chroma * ((i === 2 ? 1 : 0) - weight)) / held,
    (chroma * ((i === 0 ? 1 : 0) - weight)) / (2 * (1 - red)),
    0,
  ]);
  // Half a code more, since the kernel cuts off.
  return [...groups.flat(), black + 0.5, 128.5, 128.5, 0];
}

/** Limited-range BT.709 luma, Cb and Cr of red, green and blue signals, not rounded (ITU-R BT.709-6, items 3.2 to 3.4). */
export function toLimitedBt709([red, green, blue]: Triple): Triple {
  const weights = computeWeights('bt709');
  const luma = weights.red * red + (1 - weights.red - weights.blue) * green + weights.blue * blue;
  return [
    16 + LUMA_SPAN * luma,
    128 + (CHROMA_SPAN * (blue - luma)) / (2 * (1 - weights.blue)),
    128 + (CHROMA_SPAN * (red - luma)) / (2 * (1 - weights.red)),
  ];
}

/** An sRGB colour, `#RRGGBB`, as limited-range BT.709 luma and chroma. */
export function hexToLimitedBt709(colour: string): Triple {
  const part = (digit: number) => parseInt(colour.slice(digit, digit + 2), 16) / 255;
  return toLimitedBt709([part(1), part(3), part(5)]).map(Math.round) as Triple;
}
