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
];

/** The mark of a placement: the same everywhere. @param index its place among all placements. */
export function canvasMark(index: number): CanvasMark {
  const mark = MARKS[((index % MARKS.length) + MARKS.length) % MARKS.length];
  if (!mark) throw new RangeError('no marks');
  return mark;
}
