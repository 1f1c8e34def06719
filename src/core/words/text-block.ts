import { z } from 'zod';
import { boundedNumber } from '../figures/bounded';
import { spansSchema } from './spans';
import { SEATS } from './text-art';
import { PLAIN_STYLE, STYLE_BOUNDS, textStyleSchema } from './text-style';

/**
 * Regions that a block's box is measured in: the whole canvas, the band above or below the picture (where a
 * canvas has none, the part of the picture where it would lie), the end card, or the cover.
 */
const CONTAINER_REGIONS = ['canvas', 'above', 'below', 'card', 'cover'] as const;
export type ContainerRegion = (typeof CONTAINER_REGIONS)[number];

/** Longest text of a block, in UTF-16 units, and longest fade, in seconds. */
export const MAX_TEXT = 2000;
export const MAX_FADE = 2;

/** A rectangle, 0…1 of its ground; it may reach past it. */
const boxSchema = z.object({
  x: boundedNumber(-1, 2),
  y: boundedNumber(-1, 2),
  width: boundedNumber(0, 2).positive(),
  height: boundedNumber(0, 2).positive(),
});
export type Box = z.infer<typeof boxSchema>;

/** Where a block lies on a canvas. */
const placeSchema = z.object({
  on: z.enum(CONTAINER_REGIONS),
  box: boxSchema,
  seat: z.enum(SEATS),
  /** True when the letters are as large as the box lets them be; else they have the style's size. */
  fitted: z.boolean(),
});
export type BlockPlace = z.infer<typeof placeSchema>;

/** Words in a box, on every canvas of a clip. */
export const textBlockSchema = placeSchema.extend({
  id: z.string(),
  text: z.string().max(MAX_TEXT),
  style: textStyleSchema,
  /** When it is seen: while these are on screen, or the whole clip long. */
  spans: spansSchema.nullable(),
  /** Seconds that it takes to come and to go; 0 for none. */
  fade: boundedNumber(0, MAX_FADE),
});
export type TextBlock = z.infer<typeof textBlockSchema>;

/** How one canvas has a block by itself. */
export const ownPlaceSchema = placeSchema.extend({
  block: z.string(),
  /** A share of the canvas's shorter side. */
  size: boundedNumber(STYLE_BOUNDS.size[0], STYLE_BOUNDS.size[1]),
  /** True when the canvas shows it at all. */
  shown: z.boolean(),
});
export type OwnPlace = z.infer<typeof ownPlaceSchema>;

/** A block across the middle of the picture's lower half, the whole clip long. */
export function plainBlock(id: string, text: string): TextBlock {
  return {
    id,
    text,
    on: 'canvas',
    box: { x: 0.08, y: 0.62, width: 0.84, height: 0.16 },
    seat: 'middle',
    fitted: false,
    style: PLAIN_STYLE,
    spans: null,
    fade: 0,
  };
}

/** A block as a canvas shows it; null where it shows none. */
export function resolveBlock(block: TextBlock, own: readonly OwnPlace[] | undefined): TextBlock | null {
  const alone = own?.find((place) => place.block === block.id);
  if (!alone) return block;
  if (!alone.shown) return null;
  const { on, box, seat, fitted, size } = alone;
  return { ...block, on, box, seat, fitted, style: { ...block.style, size } };
}
