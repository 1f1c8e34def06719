import type { Rotation } from '../picture/orientation';
import type { CanvasRect, Size } from '../picture/size';

/** The framing track that the first pane shows; the second and the third have their own. */
export const MAIN_TRACK = 'main';
export const TRACKS = [MAIN_TRACK, 'second', 'third'] as const;

/**
 * Rectangle of a canvas that shows a window. Panes are drawn in their order; a later one lies over an
 * earlier.
 */
export interface Pane {
  /** Pixels of the canvas; edges lie on even pixels, as 4:2:0 needs. */
  rect: CanvasRect;
  track: string;
  /**
   * `fill`: the window covers the pane. `fit`: the whole picture is always shown. `choice`: as the shot's framing
   * says.
   */
  mode: 'fill' | 'fit' | 'choice';
  /** Of the corners, in pixels. */
  radius: number;
  /** Diameter of a blur, in pixels of the canvas; 0 for none. */
  blur: number;
  /** Quarter turns of the window, besides those of its framing. */
  turn: Rotation;
  /** Where a fitted picture lies in the pane: 0 at the top or left, 1 at the bottom or right. */
  place: number;
}

/** Rounds a distance to even pixels. */
export const toEven = (value: number): number => Math.round(value / 2) * 2;

/** A filled pane over a whole canvas, on the main track. @param size even. */
export const wholePane = ({ width, height }: Size): Pane => ({
  rect: { x: 0, y: 0, width, height },
  track: MAIN_TRACK,
  mode: 'fill',
  radius: 0,
  blur: 0,
  turn: 0,
  place: 0.5,
});
