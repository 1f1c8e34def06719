import type { CanvasRect } from '../picture/size';
import type { TextStyle } from './text-style';

/** Where words lie in a box that is higher than they are. */
export const SEATS = ['top', 'middle', 'bottom'] as const;
export type Seat = (typeof SEATS)[number];

/** Words to be drawn in a box of a canvas: all that a drawing of them depends on. */
export interface TextArt {
  text: string;
  style: TextStyle;
  /** Pixels of the canvas. */
  box: CanvasRect;
  seat: Seat;
  /** Of the letters, in pixels of the canvas; null for the largest at which all of it fits the box. */
  size: number | null;
  /** Letters of another colour, by their place in the text: the word that is being spoken. */
  mark: { from: number; to: number; colour: string } | null;
  /** Fill of the whole box behind the words, or null. */
  ground: string | null;
}
