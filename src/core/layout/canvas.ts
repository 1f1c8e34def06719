import { z } from 'zod';
import { rectSchema, type Rect, type Size } from '../picture/size';
import { frameRateSchema, type FrameRate } from '../time/frame-rate';

/** One rectangle of a canvas: which framing track it shows, and whether the picture fills it. */
export const paneSchema = z.object({
  /** Place in the canvas, 0…1, y down. */
  rect: rectSchema,
  track: z.string(),
  /** `fill`: the window covers the pane. `fit`: the whole picture is shown, with bars where it does not reach. */
  mode: z.enum(['fill', 'fit']),
});
export type Pane = z.infer<typeof paneSchema>;

/** How a canvas is divided. */
export const layoutSchema = z.object({ kind: z.literal('single'), panes: z.array(paneSchema).min(1) });
export type Layout = z.infer<typeof layoutSchema>;

const evenSide = z.number().int().min(16).max(4096).multipleOf(2);

/** The frame that a clip is made for. */
export const canvasSchema = z.object({
  id: z.string(),
  /** The placement whose size it took, `outlet/placement`. */
  placement: z.string(),
  width: evenSide,
  height: evenSide,
  rate: frameRateSchema,
  layout: layoutSchema,
});
export type Canvas = z.infer<typeof canvasSchema>;

/** The framing track that a single pane shows. */
export const MAIN_TRACK = 'main';

/** A canvas of a placement's size at the master's rate, one pane, filled. */
export function canvasOf(placement: string, size: Size, rate: FrameRate, id: string): Canvas {
  const pane: Pane = { rect: { x: 0, y: 0, width: 1, height: 1 }, track: MAIN_TRACK, mode: 'fill' };
  return { id, placement, ...size, rate, layout: { kind: 'single', panes: [pane] } };
}

const even = (value: number): number => Math.round(value / 2) * 2;

/** A pane's pixels in its canvas; edges lie on even pixels, as 4:2:0 needs. */
export function panePixels(pane: Pane, canvas: Size): Rect {
  const x = even(pane.rect.x * canvas.width);
  const y = even(pane.rect.y * canvas.height);
  return {
    x,
    y,
    width: even((pane.rect.x + pane.rect.width) * canvas.width) - x,
    height: even((pane.rect.y + pane.rect.height) * canvas.height) - y,
  };
}

/**
 * Where the whole picture lies in a pane that it is fitted into: as large as it goes, centred, on even pixels.
 *
 * @param pane pixels of the canvas. @param liveAspect width over height of the live area.
 */
export function fittedPixels(pane: Rect, liveAspect: number): Rect {
  const wide = liveAspect >= pane.width / pane.height;
  const width = wide ? pane.width : Math.max(2, even(pane.height * liveAspect));
  const height = wide ? Math.max(2, even(pane.width / liveAspect)) : pane.height;
  return {
    x: pane.x + even((pane.width - width) / 2),
    y: pane.y + even((pane.height - height) / 2),
    width,
    height,
  };
}
