import type { CanvasRect, Size } from '../picture/size';
import { type LaidText, computePadding } from './lay-text';
import type { TextArt } from './text-art';

/** How far letters may reach past their line and their advance, as a share of the size: tails, accents, slants. */
const OVERHANG = 0.4;

const evenDown = (value: number): number => Math.floor(value / 2) * 2;
const evenUp = (value: number): number => Math.ceil(value / 2) * 2;

/**
 * The pixels of a canvas that a drawing of words may touch, on even edges as 4:2:0 needs, inside the canvas; null where
 * none do.
 */
export function inkBox({ box, style, ground }: TextArt, laid: LaidText, canvas: Size): CanvasRect | null {
  const { size, lines } = laid;
  const { shadow } = style;
  const around = computePadding(style);
  const reach = shadow ? 2 * shadow.blur + Math.max(Math.abs(shadow.across), Math.abs(shadow.down)) : 0;
  const across = (Math.max(around.across, OVERHANG) + reach) * size;
  const down = (Math.max(around.down, OVERHANG) + reach) * size;
  const lefts = lines.map((line) => box.x + line.x - across);
  const rights = lines.map((line) => box.x + line.x + line.width + across);
  const tops = lines.map((line) => box.y + line.top - down);
  const bottoms = lines.map((line) => box.y + line.bottom + down);
  if (ground !== null) {
    lefts.push(box.x);
    rights.push(box.x + box.width);
    tops.push(box.y);
    bottoms.push(box.y + box.height);
  }
  const x = Math.max(0, evenDown(Math.min(...lefts)));
  const y = Math.max(0, evenDown(Math.min(...tops)));
  const right = Math.min(canvas.width, evenUp(Math.max(...rights)));
  const bottom = Math.min(canvas.height, evenUp(Math.max(...bottoms)));
  return right > x && bottom > y ? { x, y, width: right - x, height: bottom - y } : null;
}
