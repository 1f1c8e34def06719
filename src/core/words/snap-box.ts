import type { CanvasRect, Rect, Size } from '../picture/size';

/** Lines that a box may snap to, in pixels of the canvas. */
export interface SnapLines {
  across: readonly number[];
  down: readonly number[];
}

/** Part that a drag moves: the whole box, or two of its sides. */
export type BoxGrip = 'move' | 'top-left' | 'top-right' | 'bottom-left' | 'bottom-right';

/** Least side of a box, in pixels of the canvas. */
const MIN_SIDE = 24;

/** Edges and middles of rectangles, and of the canvas its edges, middle and thirds. */
export function snapLines(canvas: Size, rects: readonly CanvasRect[]): SnapLines {
  const thirds = (side: number) => [0, side / 3, side / 2, (2 * side) / 3, side];
  return {
    across: [...thirds(canvas.width), ...rects.flatMap(({ x, width }) => [x, x + width / 2, x + width])],
    down: [...thirds(canvas.height), ...rects.flatMap(({ y, height }) => [y, y + height / 2, y + height])],
  };
}

/** The shift that brings the nearest of some places onto a line, and that line; none where none is near. */
function nearest(places: readonly number[], lines: readonly number[], reach: number) {
  let best: { by: number; line: number } | null = null;
  for (const place of places) {
    for (const line of lines) {
      const by = line - place;
      if (Math.abs(by) <= reach && (!best || Math.abs(by) < Math.abs(best.by))) best = { by, line };
    }
  }
  return best;
}

/** A box after a drag, and the lines that it snapped to. */
export interface SnappedBox {
  box: CanvasRect;
  across: number | null;
  down: number | null;
}

/**
 * A box dragged by some pixels of the canvas, snapped to lines within reach.
 * @param reach in pixels of the canvas; 0 for no snapping.
 */
export function dragBox(
  from: CanvasRect,
  grip: BoxGrip,
  by: { x: number; y: number },
  lines: SnapLines,
  reach: number,
): SnappedBox {
  const across = axis(from.x, from.width, toGripSide(grip, 'left', 'right'), by.x, lines.across, reach);
  const down = axis(from.y, from.height, toGripSide(grip, 'top', 'bottom'), by.y, lines.down, reach);
  return {
    box: { x: across.start, y: down.start, width: across.length, height: down.length },
    across: across.line,
    down: down.line,
  };
}

const toGripSide = (grip: BoxGrip, first: string, last: string): 'both' | 'start' | 'end' =>
  grip === 'move' ? 'both' : grip.includes(first) ? 'start' : grip.includes(last) ? 'end' : 'both';

function axis(
  start: number,
  length: number,
  grip: 'both' | 'start' | 'end',
  by: number,
  lines: readonly number[],
  reach: number,
): { start: number; length: number; line: number | null } {
  if (grip === 'both') {
    const moved = start + by;
    const snap = nearest([moved, moved + length / 2, moved + length], lines, reach);
    return { start: moved + (snap?.by ?? 0), length, line: snap?.line ?? null };
  }
  const edge = (grip === 'start' ? start : start + length) + by;
  const snap = nearest([edge], lines, reach);
  const met = edge + (snap?.by ?? 0);
  const line = snap?.line ?? null;
  if (grip === 'start') {
    const first = Math.min(met, start + length - MIN_SIDE);
    return { start: first, length: start + length - first, line };
  }
  return { start, length: Math.max(MIN_SIDE, met - start), line };
}

/** A rectangle of a canvas as a box of its ground, 0…1. */
export function toRelativeRect(rect: CanvasRect, ground: CanvasRect): Rect {
  const tidy = (value: number) => Math.round(value * 1e5) / 1e5;
  return {
    x: tidy((rect.x - ground.x) / ground.width),
    y: tidy((rect.y - ground.y) / ground.height),
    width: tidy(rect.width / ground.width),
    height: tidy(rect.height / ground.height),
  };
}
