import type { Rect } from './size';

/** Shares of each side that lie outside what every screen shows. Source: EBU R 95 (2017), table 1, for 16:9. */
const ACTION_MARGIN = 0.035;

const within = (margin: number): Rect => ({
  x: margin,
  y: margin,
  width: 1 - 2 * margin,
  height: 1 - 2 * margin,
});

/** Where what happens should stay: 0…1 of a canvas. */
export const ACTION_SAFE = within(ACTION_MARGIN);
