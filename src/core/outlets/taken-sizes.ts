import { z } from 'zod';
import { sidePixels } from '../figures/bounded';
import { canvasSizeSchema } from '../layout/canvas';
import { ratioLabel, type Size, sizeLabel } from '../picture/size';

const ratioSchema = z.object({ width: sidePixels(), height: sidePixels() });

const oneSchema = z.object({ kind: z.literal('one'), size: canvasSizeSchema });
const severalSchema = z.object({ kind: z.literal('several'), sizes: z.array(canvasSizeSchema).min(1) });
const rangeSchema = z.object({
  kind: z.literal('range'),
  least: canvasSizeSchema,
  most: canvasSizeSchema,
  /** Width over height, both included; the same twice where only one is taken. */
  narrowest: ratioSchema,
  widest: ratioSchema,
  /** Default size of a canvas for the placement. */
  usual: canvasSizeSchema,
});
export type TakenSizes =
  z.infer<typeof oneSchema> | z.infer<typeof severalSchema> | z.infer<typeof rangeSchema>;

/** Sizes of picture that a placement takes: one, one of several, or any between two of a range of ratios. */
export const takenSizesSchema = z.discriminatedUnion('kind', [
  oneSchema,
  severalSchema,
  rangeSchema
    .refine(({ least, most }) => least.width <= most.width && least.height <= most.height, {
      error: 'The least size is over the greatest.',
      path: ['least'],
    })
    .refine(({ narrowest, widest }) => computeRatio(narrowest) <= computeRatio(widest), {
      error: 'The narrowest ratio is wider than the widest.',
      path: ['narrowest'],
    })
    .refine((range) => isSizeTaken(range, range.usual), {
      error: 'The usual size is not one that is taken.',
      path: ['usual'],
    }),
]);

const computeRatio = ({ width, height }: Size): number => width / height;

/** Even sides cannot keep every ratio exactly: so much of one is rounding. */
const ROUNDING = 2;

/** Tells whether a size has a ratio that a placement takes, within the rounding to even sides. */
export function isRatioTaken(taken: TakenSizes, { width, height }: Size): boolean {
  const between = (narrowest: Size, widest: Size) =>
    width + ROUNDING > height * computeRatio(narrowest) && width - ROUNDING < height * computeRatio(widest);
  if (taken.kind === 'range') return between(taken.narrowest, taken.widest);
  return listSizes(taken).some((size) => between(size, size));
}

/** Tells whether a placement takes a size. */
export function isSizeTaken(taken: TakenSizes, size: Size): boolean {
  const { width, height } = size;
  if (taken.kind !== 'range')
    return listSizes(taken).some((one) => one.width === width && one.height === height);
  const { least, most } = taken;
  const inside =
    width >= least.width && height >= least.height && width <= most.width && height <= most.height;
  return inside && isRatioTaken(taken, size);
}

const listSizes = (taken: Exclude<TakenSizes, { kind: 'range' }>): Size[] =>
  taken.kind === 'one' ? [taken.size] : taken.sizes;

/** The size that a canvas for the placement begins with. */
export function usualSize(taken: TakenSizes): Size {
  return taken.kind === 'range' ? taken.usual : (listSizes(taken)[0] as Size);
}

/** The ratios in words: `9:16`, `1:1 or 4:5`, `16:9 to 1.91:1`. */
export const ratiosLabel = (taken: TakenSizes): string =>
  taken.kind === 'range'
    ? unique([taken.narrowest, taken.widest].map(ratioLabel)).join(' to ')
    : unique(listSizes(taken).map(ratioLabel)).join(' or ');

const unique = (names: string[]): string[] => [...new Set(names)];

/** The sizes in words: `1080×1920`, `1080×1080 or 640×640`, `from 640×360 to 1920×1080, 16:9 to 1.91:1`. */
export function sizesLabel(taken: TakenSizes): string {
  if (taken.kind !== 'range') return listSizes(taken).map(sizeLabel).join(' or ');
  const { least, most } = taken;
  return `from ${sizeLabel(least)} to ${sizeLabel(most)}, ${ratiosLabel(taken)}`;
}
