import type { CanvasRect, Size } from '../picture/size';
import type { Captions } from './captions';
import { computePadding } from './lay-text';

/** Captions keep this share of the canvas's width, and of its height, free at its edges. */
const SIDE = 0.06;
const EDGE = 0.06;
/** They may be made as narrow as this share, to keep clear of what lies beside them. */
const MIN_WIDTH = 0.6;
/** Where they look for room, from the chosen seat on: so many places from top to bottom. */
const PLACES = 24;

/**
 * The box of a caption on a canvas: at its seat, or as near to that as nothing that must be kept clear lies under it.
 * @param lines that it may have. @param taken what must be kept clear, in pixels of the canvas.
 */
export function captionBox(
  { style, seat }: Captions,
  lines: number,
  canvas: Size,
  taken: readonly CanvasRect[],
): CanvasRect {
  const size = style.size * Math.min(canvas.width, canvas.height);
  const height = Math.ceil((lines * style.lineHeight + 2 * computePadding(style).down) * size);
  const x = Math.round(SIDE * canvas.width);
  const width = canvas.width - 2 * x;
  const [first, last] = [EDGE * canvas.height, (1 - EDGE) * canvas.height - height];
  const at = (share: number): CanvasRect =>
    narrowBox({ x, y: Math.round(first + share * (last - first)), width, height }, canvas, taken);
  const wished = { top: 0, middle: 0.5, bottom: 1 }[seat];
  const shares = Array.from({ length: PLACES + 1 }, (_, i) => i / PLACES);
  shares.sort((a, b) => Math.abs(a - wished) - Math.abs(b - wished));
  const cost = (box: CanvasRect) => taken.reduce((sum, other) => sum + overlap(box, other), 0);
  const boxes = [wished, ...shares].map(at);
  const clear = boxes.find((box) => cost(box) === 0);
  return clear ?? boxes.reduce((best, box) => (cost(box) < cost(best) ? box : best));
}

/** A box as wide as it can be in its rows without what lies at its sides, its middle kept; as it is where that is narrow. */
function narrowBox(box: CanvasRect, canvas: Size, taken: readonly CanvasRect[]): CanvasRect {
  const middle = canvas.width / 2;
  const half = taken
    .filter((other) => other.y < box.y + box.height && other.y + other.height > box.y)
    .reduce((room, { x, width }) => {
      if (x >= middle) return Math.min(room, x - middle);
      return x + width <= middle ? Math.min(room, middle - x - width) : room;
    }, box.width / 2);
  const x = Math.ceil(middle - half);
  const width = canvas.width - 2 * x;
  return width < MIN_WIDTH * canvas.width ? box : { ...box, x, width };
}

/** Pixels that two rectangles share. */
function overlap(a: CanvasRect, b: CanvasRect): number {
  const across = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const down = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  return Math.max(0, across) * Math.max(0, down);
}
