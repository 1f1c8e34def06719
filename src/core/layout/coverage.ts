import { type Margin, marginOf } from '../framing/moves';
import { distinctFrames, frameOf, type RenderPlan } from '../render/plan';
import type { Rect } from '../picture/size';

/** The proof that every canvas pixel is covered, or where it is not. */
export interface Coverage {
  covered: boolean;
  /** Output frames with a bare pixel. */
  bareFrames: number;
  /** The output frame with the least margin, or the first bare one. */
  worstFrame: number;
  /** Least distance from a window to the picture's edge along the axis in which it can move, in picture pixels. */
  leastMargin: number;
}

/** Rounding of window arithmetic, in 0…1 of the live area: far below a thousandth of a pixel. */
const EPSILON = 1e-9;

/** Coverage of a plan, from the geometry of every one of its frames; a still shot has one geometry. */
export function coverageOf(plan: RenderPlan): Coverage {
  const result: Coverage = { covered: true, bareFrames: 0, worstFrame: 0, leastMargin: Infinity };
  for (const { frame, count } of distinctFrames(plan)) {
    const { panes, liveSize } = frameOf(plan, frame);
    const inside = panes.every(({ framed }) => insideLive(framed));
    const whole = tilesCover(
      panes.map((one) => one.picture),
      plan.width,
      plan.height,
    );
    if (!inside || !whole) {
      if (result.covered) result.worstFrame = frame;
      result.covered = false;
      result.bareFrames += count;
    }
    for (const { framed } of panes) {
      const margin = slack(marginOf(framed, liveSize));
      if (margin >= result.leastMargin) continue;
      result.leastMargin = margin;
      if (result.covered) result.worstFrame = frame;
    }
  }
  return result;
}

const insideLive = (window: Rect): boolean =>
  window.x >= -EPSILON &&
  window.y >= -EPSILON &&
  window.x + window.width <= 1 + EPSILON &&
  window.y + window.height <= 1 + EPSILON;

/** The nearer edge along the axis with more room: an axis that the window fills has none, by design. */
function slack(margin: Margin): number {
  return Math.max(Math.min(margin.left, margin.right), Math.min(margin.top, margin.bottom));
}

/** Whether rectangles on whole pixels cover a canvas: every cell between their edges lies in one of them. */
export function tilesCover(tiles: readonly Rect[], width: number, height: number): boolean {
  const cuts = (size: number, edges: number[]) =>
    [...new Set([0, size, ...edges.filter((edge) => edge > 0 && edge < size)])].sort((a, b) => a - b);
  const xs = cuts(
    width,
    tiles.flatMap((tile) => [tile.x, tile.x + tile.width]),
  );
  const ys = cuts(
    height,
    tiles.flatMap((tile) => [tile.y, tile.y + tile.height]),
  );
  return ys
    .slice(0, -1)
    .every((y) =>
      xs
        .slice(0, -1)
        .every((x) => tiles.some((t) => x >= t.x && x < t.x + t.width && y >= t.y && y < t.y + t.height)),
    );
}
