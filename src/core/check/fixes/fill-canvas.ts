import type { Fix } from '../fix';

/** Reframes what was fitted in whole, so that it fills the canvas. */
export const fillCanvas: Fix<object> = {
  safe: false,
  label: () => 'Fill the canvas',
  command: () => ({ type: 'fill-canvas' }),
};
