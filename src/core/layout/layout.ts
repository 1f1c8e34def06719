import { z } from 'zod';
import { boundedNumber } from '../figures/bounded';
import type { Rotation } from '../picture/orientation';
import type { CanvasRect, Size } from '../picture/size';
import { colourSchema } from '../words/text-style';

/** Ways to divide a canvas. */
export const LAYOUTS = ['single', 'stacked', 'inset', 'banded', 'backdrop', 'turned'] as const;
export type LayoutKind = (typeof LAYOUTS)[number];

export const CORNERS = ['top-left', 'top-right', 'bottom-left', 'bottom-right'] as const;

/** The least share of a canvas's height that a stacked pane keeps. */
export const LEAST_PANE = 0.1;
/** Colours of bands to begin with, as sRGB: paper, ink, woad. */
export const BAND_COLOURS = ['#FAF6EC', '#1F2B33', '#2B5C8A'] as const;

/** Least and most of what a layout's numbers may be. */
export const LAYOUT_BOUNDS = {
  width: [0.15, 0.9],
  margin: [0, 0.2],
  aspect: [0.4, 2.5],
  radius: [0, 0.5],
  place: [0, 1],
  blur: [0.01, 0.2],
} as const;
export type LayoutNumber = keyof typeof LAYOUT_BOUNDS;

const bounded = (of: LayoutNumber) => boundedNumber(LAYOUT_BOUNDS[of][0], LAYOUT_BOUNDS[of][1]);

/** How a canvas is divided. What belongs to other kinds stays, so that going back to one loses nothing. */
export const layoutSchema = z.object({
  kind: z.enum(LAYOUTS),
  stacked: z.object({
    panes: z.union([z.literal(2), z.literal(3)]),
    /** Where the panes meet, 0…1 of the height; the second is used by three panes only. */
    dividers: z.tuple([bounded('place'), bounded('place')]),
  }),
  inset: z.object({
    corner: z.enum(CORNERS),
    /** Width of the pane over the other, and its distance from the edges: shares of the canvas's shorter side. */
    width: bounded('width'),
    margin: bounded('margin'),
    /** Width over height. */
    aspect: bounded('aspect'),
    /** Of its corners, a share of its shorter side: 0.5 makes them half circles. */
    radius: bounded('radius'),
  }),
  banded: z.object({
    /** Where the picture lies between the bands: 0 at the top, 1 at the bottom. */
    place: bounded('place'),
    colour: colourSchema,
  }),
  /** How soft the enlarged copy is: the diameter of its blur as a share of the canvas's shorter side. */
  backdrop: z.object({ blur: bounded('blur') }),
  /** Which way the picture is turned. */
  turned: z.object({ clockwise: z.boolean() }),
});
export type Layout = z.infer<typeof layoutSchema>;

/** One pane over the whole canvas, and what the other kinds begin with. */
export const PLAIN_LAYOUT: Layout = {
  kind: 'single',
  stacked: { panes: 2, dividers: [0.5, 0.75] },
  inset: { corner: 'bottom-right', width: 0.42, margin: 0.04, aspect: 1, radius: 0.12 },
  banded: { place: 0.5, colour: BAND_COLOURS[0] },
  backdrop: { blur: 0.06 },
  turned: { clockwise: true },
};

/** The framing track that the first pane shows; the second and the third have their own. */
export const MAIN_TRACK = 'main';
const TRACKS = [MAIN_TRACK, 'second', 'third'] as const;

/** One rectangle of a canvas. Panes are drawn in their order; a later one lies over an earlier. */
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

const even = (value: number): number => Math.round(value / 2) * 2;

/** The panes of a canvas, in drawing order. @param size even. */
export function panesOf(layout: Layout, size: Size): Pane[] {
  const whole: Pane = {
    rect: { x: 0, y: 0, width: size.width, height: size.height },
    track: MAIN_TRACK,
    mode: 'fill',
    radius: 0,
    blur: 0,
    turn: 0,
    place: 0.5,
  };
  switch (layout.kind) {
    case 'single':
      return [{ ...whole, mode: 'choice' }];
    case 'stacked':
      return stackedRows(layout, size.height).map(([top, bottom], i) => ({
        ...whole,
        track: TRACKS[i] as string,
        rect: { ...whole.rect, y: top, height: bottom - top },
      }));
    case 'inset':
      return [whole, { ...whole, track: TRACKS[1], ...insetPlace(layout.inset, size) }];
    case 'banded':
      return [{ ...whole, mode: 'fit', place: layout.banded.place }];
    case 'backdrop': {
      const blur = layout.backdrop.blur * Math.min(size.width, size.height);
      return [
        { ...whole, blur },
        { ...whole, mode: 'fit' },
      ];
    }
    case 'turned':
      // A window that turns one way shows the picture turned the other.
      return [{ ...whole, turn: layout.turned.clockwise ? 270 : 90 }];
  }
}

/** Top and bottom of each stacked pane, in even pixels that meet without a gap; none is thinner than two rows. */
function stackedRows({ stacked }: Layout, height: number): [number, number][] {
  const { panes, dividers } = stacked;
  const edges = [0, ...dividers.slice(0, panes - 1).sort((a, b) => a - b), 1].map((divider) =>
    even(divider * height),
  );
  for (let i = 1; i < panes; i++) edges[i] = Math.max(edges[i] as number, (edges[i - 1] as number) + 2);
  for (let i = panes - 1; i > 0; i--) edges[i] = Math.min(edges[i] as number, (edges[i + 1] as number) - 2);
  return edges.slice(0, -1).map((top, i) => [top, edges[i + 1] as number]);
}

function insetPlace(inset: Layout['inset'], size: Size): Pick<Pane, 'rect' | 'radius'> {
  const shorter = Math.min(size.width, size.height);
  const margin = even(inset.margin * shorter);
  const room = (side: number) => Math.max(2, side - 2 * margin);
  const width = Math.max(2, even(Math.min(room(size.width), inset.width * shorter)));
  const height = Math.max(2, even(Math.min(room(size.height), width / inset.aspect)));
  const [vertical, horizontal] = inset.corner.split('-');
  return {
    rect: {
      x: horizontal === 'left' ? margin : size.width - margin - width,
      y: vertical === 'top' ? margin : size.height - margin - height,
      width,
      height,
    },
    radius: inset.radius * Math.min(width, height),
  };
}

/** The tracks that a layout shows, each once. */
export function tracksOf(layout: Layout): string[] {
  const size = { width: 1000, height: 1000 };
  return [...new Set(panesOf(layout, size).map((pane) => pane.track))];
}

/**
 * Where the whole picture lies in a pane that it is fitted into: as large as it goes, on even pixels.
 *
 * @param pane pixels of the canvas. @param liveAspect width over height of the live area.
 * @param place 0…1 of the room that is left.
 */
export function fittedPixels(pane: CanvasRect, liveAspect: number, place = 0.5): CanvasRect {
  const wide = liveAspect >= pane.width / pane.height;
  const width = wide ? pane.width : Math.min(pane.width, Math.max(2, even(pane.height * liveAspect)));
  const height = wide ? Math.min(pane.height, Math.max(2, even(pane.width / liveAspect))) : pane.height;
  return {
    x: pane.x + even((pane.width - width) * place),
    y: pane.y + even((pane.height - height) * place),
    width,
    height,
  };
}
