import type { Rect } from '../picture/size';
import { segmentFacts } from '../render/segment-facts';
import type { PlanSegment, RenderPlan } from '../render/plan';

/** Why a canvas pixel may be bare. */
export type BareReason =
  /** A whole picture is fitted into a pane that it does not fill. */
  | 'bars'
  /** No pane lies there. */
  | 'gap';

/** Proof that every canvas pixel is covered, or the place that is not. */
export interface Coverage {
  covered: boolean;
  /** Null when it is covered. */
  reason: BareReason | null;
  /** Output frames with a bare pixel, and the shots that they are in. */
  bareFrames: number;
  bareShots: string[];
  /** Shots of the plan, counted only where one is bare: else 0. */
  shots: number;
  /** The output frame with the least margin, or the first bare one. */
  worstFrame: number;
  /** Least distance from a window to the picture's edge along the axis in which it can move, in picture pixels. */
  minMargin: number;
}

/**
 * Coverage of a plan. A window never leaves the live area (`framing.test.ts`), so pixels are bare only where no pane's
 * picture lies: that is the same in every frame of a segment.
 */
export function computeCoverage(plan: RenderPlan): Coverage {
  const result: Coverage = {
    covered: true,
    reason: null,
    bareFrames: 0,
    bareShots: [],
    shots: 0,
    worstFrame: 0,
    minMargin: Infinity,
  };
  for (const segment of plan.segments) {
    const reason = plan.ground === null ? bareReason(segment, plan) : null;
    if (reason) addBare(result, reason, segment);
    const { slack } = segmentFacts(plan, segment);
    if (slack.value >= result.minMargin) continue;
    result.minMargin = slack.value;
    if (result.covered) result.worstFrame = segment.start + slack.offset;
  }
  if (!result.covered) result.shots = new Set(plan.segments.map((segment) => segment.shot)).size;
  return result;
}

function addBare(result: Coverage, reason: BareReason, { shot, start, frames }: PlanSegment): void {
  if (result.covered) {
    result.covered = false;
    result.reason = reason;
    result.worstFrame = start;
  }
  result.bareFrames += frames;
  if (!result.bareShots.includes(shot)) result.bareShots.push(shot);
}

/**
 * Finds why the pictures of a segment's panes leave a pixel bare. A pane with round corners covers nothing
 * for sure.
 */
function bareReason({ panes }: PlanSegment, { width, height }: RenderPlan): BareReason | null {
  // What nearly every segment is: one picture over all of the canvas.
  if (panes.some((pane) => pane.radius === 0 && pane.picture.width >= width && pane.picture.height >= height))
    return null;
  const square = panes.filter((pane) => pane.radius === 0);
  const covers = (rects: Rect[]) => isTiled(rects, width, height);
  if (covers(square.map((pane) => pane.picture))) return null;
  return covers(square.map((pane) => pane.pane)) ? 'bars' : 'gap';
}

/**
 * Tells whether rectangles on whole pixels cover a canvas: every cell between their edges lies in one of
 * them.
 */
export function isTiled(tiles: readonly Rect[], width: number, height: number): boolean {
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
