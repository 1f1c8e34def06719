import { z } from 'zod';
import { measure } from '../figures/bounded';

/** Shipped files of one family: files that share its characters, and its measures as shares of the size. */
const familySchema = z.object({
  /** From the baseline up and down, both positive. */
  ascent: measure(),
  descent: measure(),
  capHeight: measure(),
  /** Code points of each file in hexadecimal: `20-7e,a0`. */
  files: z.array(z.object({ file: z.string(), weight: measure(), ranges: z.string() })).min(1),
});

/** Index of fonts: `public/fonts/index.json`, written when the app is built, and a person's own. */
export const fontIndexSchema = z.object({ families: z.record(z.string(), familySchema) });
export type FontIndex = z.infer<typeof fontIndexSchema>;
export type FontFamily = z.infer<typeof familySchema>;
export type FontFile = FontFamily['files'][number];

/** Code points as pairs of first and last, in order. */
export class CharacterCoverage {
  private constructor(private readonly edges: Uint32Array) {}

  /** @param ranges as in the index, in any order. @throws RangeError for what is not hexadecimal. */
  static of(ranges: string): CharacterCoverage {
    const pairs = ranges
      .split(',')
      .filter(Boolean)
      .map((range) => {
        const [from = NaN, to = from] = range.split('-').map((digits) => parseInt(digits, 16));
        if (Number.isNaN(from) || Number.isNaN(to))
          throw new RangeError(`${range} is no range of characters`);
        return [from, to] as const;
      })
      .sort(([a], [b]) => a - b);
    return new CharacterCoverage(Uint32Array.from(pairs.flat()));
  }

  has(point: number): boolean {
    let [low, high] = [0, this.edges.length / 2 - 1];
    while (low <= high) {
      const middle = (low + high) >> 1;
      if (point < (this.edges[2 * middle] as number)) high = middle - 1;
      else if (point > (this.edges[2 * middle + 1] as number)) low = middle + 1;
      else return true;
    }
    return false;
  }
}

/** Characters that the fonts of an index have. Ranges are read once, when they are first asked for. */
export class FontBook {
  private readonly known = new Map<FontFile, CharacterCoverage>();

  constructor(readonly index: FontIndex) {}

  family(name: string): FontFamily | null {
    return this.index.families[name] ?? null;
  }

  has(family: string, point: number): boolean {
    return (this.family(family)?.files ?? []).some((file) => this.coverage(file).has(point));
  }

  /** The weight that a family has nearest to one that is wished. */
  weight(family: string, wished: number): number {
    const weights = (this.family(family)?.files ?? []).map((file) => file.weight);
    const nearest = (best: number, next: number) =>
      Math.abs(next - wished) < Math.abs(best - wished) ? next : best;
    return weights.reduce(nearest, weights[0] ?? wished);
  }

  /** The files of a family that a text needs, the one that has most of it first: signs are in several of them. */
  chooseFiles(family: string, wished: number, text: string): FontFile[] {
    const weight = this.weight(family, wished);
    const files = (this.family(family)?.files ?? []).filter((file) => file.weight === weight);
    const missing = new Set(Array.from(text, (character) => character.codePointAt(0) as number));
    const taken: FontFile[] = [];
    for (;;) {
      const inFile = (file: FontFile) => [...missing].filter((point) => this.coverage(file).has(point));
      const [best] = files
        .map((file) => ({ file, points: inFile(file) }))
        .sort((a, b) => b.points.length - a.points.length);
      if (!best || best.points.length === 0) return taken;
      taken.push(best.file);
      for (const point of best.points) missing.delete(point);
    }
  }

  private coverage(file: FontFile): CharacterCoverage {
    const known = this.known.get(file) ?? CharacterCoverage.of(file.ranges);
    this.known.set(file, known);
    return known;
  }
}
