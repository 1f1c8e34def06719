/** What marks a canvas wherever it appears: its dye and its stitch, never colour alone. */
export interface CanvasMark {
  dye: string;
  stitch: string;
  /** Dash pattern of an outline, in pixels; empty for a running line. */
  dashes: number[];
}

const MARKS: readonly CanvasMark[] = [
  { dye: '#2B5C8A', stitch: 'running', dashes: [] },
  { dye: '#6B3F73', stitch: 'dashed', dashes: [10, 6] },
  { dye: '#7A4E2A', stitch: 'dotted', dashes: [2, 5] },
  { dye: '#66741F', stitch: 'chain', dashes: [12, 5, 2, 5] },
  { dye: '#4A5560', stitch: 'long', dashes: [18, 6] },
  { dye: '#9A4463', stitch: 'double', dashes: [6, 3, 6, 9] },
];

/** The mark of a canvas: the same everywhere. @param index its dye. */
export function canvasMark(index: number): CanvasMark {
  const mark = MARKS[((index % MARKS.length) + MARKS.length) % MARKS.length];
  if (!mark) throw new RangeError('no marks');
  return mark;
}
