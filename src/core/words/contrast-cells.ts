import { contrastRatio, relativeLuminance } from './contrast';

/** A drawing of words over what lies behind them, rows of `width` pixels. */
export interface LetterPixels {
  width: number;
  height: number;
  /** Colours behind the letters, in red, green, blue and alpha: the picture with plate, outline and shadow. */
  behind: Uint8ClampedArray | Uint8Array;
  /** How much the letters cover, and the letters with a rim around them: alpha, 0…255. */
  letters: Uint8Array;
  rim: Uint8Array;
}

/** A pixel is of the rim where letters cover it by less than this, and the rim by more than half. */
const BARE = 24;
const RIM = 128;
/** A place is judged by at least so many pixels of the rim. */
const MIN_PIXELS = 12;

/**
 * The least contrast of letters with what lies around them, place by place: letters are lost where they meet what is
 * as light as they are, however much stands out elsewhere.
 * @param cell side of a place, in pixels: about half a letter. @param luminance of the letters, 0…1.
 * @returns 1…21; null where no letter is seen.
 */
export function findMinContrast(pixels: LetterPixels, cell: number, luminance: number): number | null {
  const { width, height, behind, letters, rim } = pixels;
  const across = Math.ceil(width / cell);
  const sums = new Float64Array(across * Math.ceil(height / cell));
  const counts = new Uint32Array(sums.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = y * width + x;
      if ((letters[at] as number) >= BARE || (rim[at] as number) < RIM) continue;
      const place = Math.floor(y / cell) * across + Math.floor(x / cell);
      const [red, green, blue] = [behind[4 * at], behind[4 * at + 1], behind[4 * at + 2]] as [
        number,
        number,
        number,
      ];
      sums[place] = (sums[place] as number) + relativeLuminance([red, green, blue]);
      counts[place] = (counts[place] as number) + 1;
    }
  }
  let least: number | null = null;
  counts.forEach((count, place) => {
    if (count < MIN_PIXELS) return;
    const ratio = contrastRatio(luminance, (sums[place] as number) / count);
    if (least === null || ratio < least) least = ratio;
  });
  return least;
}
