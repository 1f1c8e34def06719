import { colours } from './tokens';

/** Mark of a canvas wherever it appears: its colour and its stitch, never colour alone. */
export interface CanvasMark {
  dye: string;
  stitch: string;
  /** Dash pattern of an outline, in pixels; empty for a running line. */
  dashes: number[];
}

const MARKS: readonly CanvasMark[] = [
  { dye: colours.canvas0, stitch: 'running', dashes: [] },
  { dye: colours.canvas1, stitch: 'dashed', dashes: [10, 6] },
  { dye: colours.canvas2, stitch: 'dotted', dashes: [2, 5] },
  { dye: colours.canvas3, stitch: 'chain', dashes: [12, 5, 2, 5] },
  { dye: colours.canvas4, stitch: 'long', dashes: [18, 6] },
  { dye: colours.canvas5, stitch: 'double', dashes: [6, 3, 6, 9] },
];

/** The mark of a canvas: the same everywhere. @param index its dye. */
export function canvasMark(index: number): CanvasMark {
  const mark = MARKS[((index % MARKS.length) + MARKS.length) % MARKS.length];
  if (!mark) throw new RangeError('no marks');
  return mark;
}
