import type { LayoutField } from './layout-kind';

/** The share of a canvas's height that a pane keeps at least. */
export const MIN_PANE_SHARE = 0.1;

/** Makes the field of a divider's place, in hundredths of the canvas's height. @param index from 0. @param at 0…1. */
export const dividerField = <Settings>(
  index: number,
  at: number,
  withPlace: (place: number) => Settings,
): LayoutField<Settings> => ({
  type: 'number',
  label: `Divider ${index + 1}`,
  unit: '% from above',
  value: Math.round(at * 1000) / 10,
  min: 100 * MIN_PANE_SHARE,
  max: 100 * (1 - MIN_PANE_SHARE),
  withValue: (percent) => withPlace(percent / 100),
});
