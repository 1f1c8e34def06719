import { z } from 'zod';
import { boundedInt, boundedNumber } from '../figures/bounded';

export const colourSchema = z.string().regex(/^#[0-9A-Fa-f]{6}$/);
export const ALIGNS = ['left', 'middle', 'right'] as const;

/** Least and most of what a style's numbers may be; see {@link textStyleSchema} for their units. */
export const STYLE_BOUNDS = {
  size: [0.01, 0.5],
  lineHeight: [0.8, 2.5],
  cover: [0, 1],
  pad: [0, 1],
  radius: [0, 1],
  outline: [0.01, 0.3],
  shift: [-0.5, 0.5],
  blur: [0, 0.5],
} as const;
export type StyleNumber = keyof typeof STYLE_BOUNDS;

const createBound = (of: StyleNumber) => boundedNumber(STYLE_BOUNDS[of][0], STYLE_BOUNDS[of][1]);

/** How words look. Lengths other than the size are shares of the size. */
export const textStyleSchema = z.object({
  /** A name of `families.ts`, or one of a person's own. */
  family: z.string(),
  weight: boundedInt(100, 900),
  /** A share of the canvas's shorter side. */
  size: createBound('size'),
  align: z.enum(ALIGNS),
  /** From baseline to baseline. */
  lineHeight: createBound('lineHeight'),
  colour: colourSchema,
  /** A filled shape behind each line; `pad` beside it, and half as much above and below. */
  plate: z
    .object({
      colour: colourSchema,
      cover: createBound('cover'),
      pad: createBound('pad'),
      radius: createBound('radius'),
    })
    .nullable(),
  /** Outside the letters. */
  outline: z.object({ colour: colourSchema, width: createBound('outline') }).nullable(),
  shadow: z
    .object({
      colour: colourSchema,
      cover: createBound('cover'),
      across: createBound('shift'),
      down: createBound('shift'),
      blur: createBound('blur'),
    })
    .nullable(),
});
export type TextStyle = z.infer<typeof textStyleSchema>;

/** Default plate, outline and shadow. */
export const PLAIN_PLATE = { colour: '#1F2B33', cover: 0.85, pad: 0.3, radius: 0.2 };
export const PLAIN_OUTLINE = { colour: '#1F2B33', width: 0.08 };
export const PLAIN_SHADOW = { colour: '#1F2B33', cover: 0.6, across: 0.03, down: 0.05, blur: 0.08 };

/** Chalk letters with an ink outline: they can be read on most pictures. */
export const PLAIN_STYLE: TextStyle = {
  family: 'plain',
  weight: 700,
  size: 0.07,
  align: 'middle',
  lineHeight: 1.15,
  colour: '#FFFDF7',
  plate: null,
  outline: PLAIN_OUTLINE,
  shadow: null,
};
