import { z } from 'zod';
import { boundedInt, boundedCount } from '../figures/bounded';
import { framingSchema } from '../framing/framing';
import type { Size } from '../picture/size';
import { encodingSchema } from '../rate/encoding';
import { type FrameRate, frameRateSchema } from '../time/frame-rate';
import { canvasTextSchema } from '../words/canvas-text';
import { layoutSchema, PLAIN_LAYOUT } from './layout';

export const MIN_SIDE = 16;
export const MAX_SIDE = 4096;
const evenSide = boundedInt(MIN_SIDE, MAX_SIDE).multipleOf(2);

/** Width and height of a canvas: even, 16–4096. */
export const canvasSizeSchema = z.object({ width: evenSide, height: evenSide });

/** The frame that a clip is made for. */
export const canvasSchema = canvasSizeSchema.extend({
  id: z.string(),
  /** The placement whose size it took, `outlet/placement`, or null for a size of the person's own. */
  placement: z.string().nullable(),
  /** Further placements that it is made for, of the same size. */
  also: z.array(z.string()).optional(),
  rate: frameRateSchema,
  layout: layoutSchema,
  /** Index of the colour that marks it wherever it appears. */
  dye: boundedCount(),
  /** Framings of shots that this canvas alone has; else it follows those that all share. */
  detached: z.array(framingSchema),
  /** Overrides of the clip's words; not there where it follows in all. */
  text: canvasTextSchema.optional(),
  /** How its file is made; not there where nothing of that was chosen. */
  encoding: encodingSchema.optional(),
});
export type Canvas = z.infer<typeof canvasSchema>;

/** A canvas of a size at a rate, one pane, filled, in the first dye. */
export function makeCanvas(placement: string | null, size: Size, rate: FrameRate, id: string): Canvas {
  const { width, height } = size;
  return { id, placement, width, height, rate, layout: PLAIN_LAYOUT, dye: 0, detached: [] };
}
