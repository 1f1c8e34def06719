import type { CanvasRect, Size } from '../picture/size';
import type { Captions } from './captions';
import { roomAround } from './lay-text';

/** Captions keep this share of the canvas's width, and of its height, free at its edges. */
const SIDE = 0.06;
const EDGE = 0.06;
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
  const height = Math.ceil((lines * style.lineHeight + 2 * roomAround(style).down) * size);
  const x = Math.round(SIDE * canvas.width);
  const width = canvas.width - 2 * x;
  const [first, last] = [EDGE * canvas.height, (1 - EDGE) * canvas.height - height];
  const at = (share: number): CanvasRect => ({
    x,
    y: Math.round(first + share * (last - first)),
    width,
    height,
  });
  const wished = { top: 0, middle: 0.5, bottom: 1 }[seat];
  const shares = Array.from({ length: PLACES + 1 }, (_, i) => i / PLACES);
  shares.sort((a, b) => Math.abs(a - wished) - Math.abs(b - wished));
  const cost = (box: CanvasRect) => taken.reduce((sum, other) => sum + overlap(box, other), 0);
  const boxes = [wished, ...shares].map(at);
  const clear = boxes.find((box) => cost(box) === 0);
  return clear ?? boxes.reduce((best, box) => (cost(box) < cost(best) ? box : best));
}

/** Pixels that two rectangles share. */
function overlap(a: CanvasRect, b: CanvasRect): number {
  const across = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const down = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  return Math.max(0, across) * Math.max(0, down);
}
