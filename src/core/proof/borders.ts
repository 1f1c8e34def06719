import type { Borders } from '../picture/borders';
import type { PlanSegment, RenderPlan } from '../render/plan';

/**
 * A line is a bar where it is black and flat: a bar is drawn at 16, and coding moves it by a level or two. A dark part of
 * the picture is neither. In levels of limited range.
 */
const BLACK_MEAN = 19;
const BLACK_MOST = 28;

/**
 * Widths of the black borders of one 8-bit luma plane.
 *
 * @param luma rows of `stride` bytes. @param width samples in a row. @param height rows.
 * @returns null when the whole picture is black, which tells nothing about borders.
 */
export function blackBorders(
  luma: Uint8Array,
  stride: number,
  width: number,
  height: number,
): Borders | null {
  const isBlack = (start: number, step: number, count: number) => {
    let sum = 0;
    for (let n = 0, i = start; n < count; n++, i += step) {
      const level = luma[i] as number;
      if (level > BLACK_MOST) return false;
      sum += level;
    }
    return sum / count <= BLACK_MEAN;
  };
  const row = (y: number) => isBlack(y * stride, 1, width);
  const column = (x: number) => isBlack(x, stride, height);
  const run = (length: number, black: (i: number) => boolean) => {
    let i = 0;
    while (i < length && black(i)) i++;
    return i;
  };
  const top = run(height, row);
  if (top === height) return null;
  return {
    top,
    bottom: run(height, (i) => row(height - 1 - i)),
    left: run(width, column),
    right: run(width, (i) => column(width - 1 - i)),
  };
}

/** The borders that a plan leaves on purpose around a segment's pictures: a whole picture that is fitted in. */
export function plannedBorders(
  { panes }: Pick<PlanSegment, 'panes'>,
  { width, height }: Pick<RenderPlan, 'width' | 'height'>,
): Borders {
  const pictures = panes.map((pane) => pane.picture);
  return {
    left: Math.min(...pictures.map(({ x }) => x)),
    top: Math.min(...pictures.map(({ y }) => y)),
    right: width - Math.max(...pictures.map((picture) => picture.x + picture.width)),
    bottom: height - Math.max(...pictures.map((picture) => picture.y + picture.height)),
  };
}

/** Finds the parts of the found borders that were not planned: a side that is no wider than planned is none. */
export function subtractPlannedBorders(found: Borders, planned: Borders): Borders {
  return combine(found, planned, (wide, meant) => (wide <= meant ? 0 : wide));
}

/** The border that two frames of one shot share: what is black in both. Null tells nothing. */
export function findSharedBorders(a: Borders | null, b: Borders | null): Borders | null {
  if (!a || !b) return a ?? b;
  return combine(a, b, Math.min);
}

/** The wider borders of two shots. */
export function widerBorders(a: Borders, b: Borders): Borders {
  return combine(a, b, Math.max);
}

function combine(a: Borders, b: Borders, pick: (x: number, y: number) => number): Borders {
  return {
    left: pick(a.left, b.left),
    top: pick(a.top, b.top),
    right: pick(a.right, b.right),
    bottom: pick(a.bottom, b.bottom),
  };
}
