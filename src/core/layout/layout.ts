import { z } from 'zod';
import type { CanvasRect, Size } from '../picture/size';
import { backdrop } from './kinds/backdrop';
import { banded } from './kinds/banded';
import { inset } from './kinds/inset';
import type { LayoutField, LayoutKindDescriptor } from './kinds/layout-kind';
import { oneAboveTwo } from './kinds/one-above-two';
import { single } from './kinds/single';
import { stacked } from './kinds/stacked';
import { turned } from './kinds/turned';
import { type Pane, toEven } from './pane';

/** Every way to divide a canvas, in the order in which they are offered: a file a kind, and a line here. */
const KINDS = { single, stacked, oneAboveTwo, inset, banded, backdrop, turned };
export type LayoutKind = keyof typeof KINDS;
export const LAYOUTS = Object.keys(KINDS) as [LayoutKind, ...LayoutKind[]];

type SettingsOf<K extends LayoutKind> =
  (typeof KINDS)[K] extends LayoutKindDescriptor<infer Settings> ? Settings : never;

/**
 * How a canvas is divided. Settings of other kinds stay, so that going back to one loses nothing; what is not there of
 * them is as the kind begins with.
 */
export type Layout = { kind: LayoutKind } & { [K in Exclude<LayoutKind, 'single'>]?: Partial<SettingsOf<K>> };

export const layoutSchema = z.object({
  kind: z.enum(LAYOUTS),
  ...Object.fromEntries(
    Object.entries(KINDS).flatMap(([kind, { schema }]) =>
      schema ? [[kind, schema.partial().optional()]] : [],
    ),
  ),
}) as unknown as z.ZodType<Layout>;

/** Layout of one pane over the whole canvas. */
export const PLAIN_LAYOUT: Layout = { kind: 'single' };

/** The layout that is chosen of a canvas; each change is of that canvas's layout. */
export interface ChosenLayout {
  /** Its panes, in drawing order. @param size even. */
  panes(size: Size): Pane[];
  /** Where its panes meet, from above, 0…1 of the height, as far as that can be moved. */
  dividers: number[];
  /** A change by which a divider is elsewhere, as far as that goes. */
  withDivider(index: number, to: number): Partial<Layout>;
  /** Colour of the canvas where no pane lies, as sRGB; null for black. */
  ground: string | null;
  fields: LayoutField<Partial<Layout>>[];
}

/** Joins the kind of a layout with its settings. */
export function chosenLayout(layout: Layout): ChosenLayout {
  const { kind } = layout;
  // Kind and settings belong together; the registry knows each pair.
  const known = KINDS[kind] as unknown as LayoutKindDescriptor<object>;
  const settings = { ...known.plain, ...(layout as Partial<Record<LayoutKind, object>> & object)[kind] };
  const change = (to: object): Partial<Layout> => ({ [kind]: to });
  const { dividers } = known;
  return {
    panes: (size) => known.panes(settings, size),
    dividers: dividers?.places(settings) ?? [],
    withDivider: (index, to) => (dividers ? change(dividers.move(settings, index, to)) : {}),
    ground: known.ground?.(settings) ?? null,
    fields: (known.fields?.(settings) ?? []).map((field) => mapField(field, change)),
  };
}

/** Makes a field of settings one of something larger. */
function mapField<A, B>(field: LayoutField<A>, change: (settings: A) => B): LayoutField<B> {
  switch (field.type) {
    case 'choice':
      return {
        ...field,
        options: field.options.map((option) => ({ ...option, settings: change(option.settings) })),
      };
    case 'number':
      return { ...field, withValue: (value) => change(field.withValue(value)) };
    case 'step':
      return { ...field, settings: field.settings && change(field.settings) };
    case 'colour':
      return { ...field, settings: change(field.settings) };
  }
}

/** Gives the name of a kind as people see it. */
export const layoutLabel = (kind: LayoutKind): string => KINDS[kind].label;

/** The panes of a canvas, in drawing order. @param size even. */
export const listPanes = (layout: Layout, size: Size): Pane[] => chosenLayout(layout).panes(size);

/** The tracks that a layout shows, each once. */
export function listFramingTracks(layout: Layout): string[] {
  const size = { width: 1000, height: 1000 };
  return [...new Set(listPanes(layout, size).map((pane) => pane.track))];
}

/**
 * Where the whole picture lies in a pane that it is fitted into: as large as it goes, on even pixels.
 *
 * @param pane pixels of the canvas. @param liveAspect width over height of the live area.
 * @param place 0…1 of the room that is left.
 */
export function fitPixels(pane: CanvasRect, liveAspect: number, place = 0.5): CanvasRect {
  const wide = liveAspect >= pane.width / pane.height;
  const width = wide ? pane.width : Math.min(pane.width, Math.max(2, toEven(pane.height * liveAspect)));
  const height = wide ? Math.min(pane.height, Math.max(2, toEven(pane.width / liveAspect))) : pane.height;
  return {
    x: pane.x + toEven((pane.width - width) * place),
    y: pane.y + toEven((pane.height - height) * place),
    width,
    height,
  };
}
