import { keyframeAt, keyframeBefore } from '../framing/framing';
import { marginOf } from '../framing/moves';
import { type Aspects, windowAt } from '../framing/window';
import type { Rect } from '../picture/size';
import { masterFrameIn, type PlanPane, type PlanSegment, type RenderPlan } from '../render/plan';
import { leastMargin } from './margin-bounds';

/** Why a canvas pixel may be bare. */
export type BareReason =
  /** A whole picture is fitted into a pane that it does not fill. */
  | 'bars'
  /** No pane lies there. */
  | 'gap'
  /** A window reaches past the live area. */
  | 'outside';

/** The proof that every canvas pixel is covered, or where it is not. */
export interface Coverage {
  covered: boolean;
  /** Null when it is covered. */
  reason: BareReason | null;
  /** Output frames with a bare pixel, and the shots that they are in. */
  bareFrames: number;
  bareShots: string[];
  /** Shots of the plan. */
  shots: number;
  /** The output frame with the least margin, or the first bare one. */
  worstFrame: number;
  /** Least distance from a window to the picture's edge along the axis in which it can move, in picture pixels. */
  leastMargin: number;
}

/** Rounding of window arithmetic, in picture pixels. */
const EPSILON = 1e-6;

/**
 * Coverage of a plan: of every pixel of every frame, not of samples. What stands still is proved by its one
 * geometry. Between two keyframes bounds that hold for all frames are halved until they decide, in the end at
 * single frames.
 */
export function coverageOf(plan: RenderPlan): Coverage {
  const shots = new Set(plan.segments.map((segment) => segment.shot));
  const result: Coverage = {
    covered: true,
    reason: null,
    bareFrames: 0,
    bareShots: [],
    shots: shots.size,
    worstFrame: 0,
    leastMargin: Infinity,
  };
  for (const segment of plan.segments) {
    const reason = plan.ground === null ? bareReason(segment, plan) : null;
    if (reason) addBare(result, reason, segment, segment.start, segment.frames);
    for (const pane of segment.panes) {
      if (pane.framing) new PaneSearch(plan, segment, pane, result, reason === null).run();
    }
  }
  return result;
}

function addBare(
  result: Coverage,
  reason: BareReason,
  { shot }: PlanSegment,
  frame: number,
  count: number,
): void {
  if (result.covered) {
    result.covered = false;
    result.reason = reason;
    result.worstFrame = frame;
  }
  result.bareFrames += count;
  if (!result.bareShots.includes(shot)) result.bareShots.push(shot);
}

/** Whether the pictures of a segment's panes leave a pixel bare. A pane with round corners covers nothing for sure. */
function bareReason({ panes }: PlanSegment, { width, height }: RenderPlan): BareReason | null {
  const square = panes.filter((pane) => pane.radius === 0);
  const covers = (rects: Rect[]) => tilesCover(rects, width, height);
  if (covers(square.map((pane) => pane.picture))) return null;
  return covers(square.map((pane) => pane.pane)) ? 'bars' : 'gap';
}

/** Looks for the least margin of one pane over one segment. */
class PaneSearch {
  private readonly aspects: Aspects;
  private readonly framing: NonNullable<PlanPane['framing']>;
  private readonly counted = new Set<number>();

  constructor(
    private readonly plan: RenderPlan,
    private readonly segment: PlanSegment,
    pane: PlanPane,
    private readonly result: Coverage,
    /** Whether frames found outside are still to be counted. */
    private readonly counts: boolean,
  ) {
    if (!pane.framing) throw new RangeError('a pane without a window has no margin');
    this.framing = pane.framing;
    const { liveSize } = segment;
    this.aspects = {
      pane: pane.picture.width / pane.picture.height,
      live: liveSize.width / liveSize.height,
    };
  }

  run(): void {
    const { start, frames } = this.segment;
    const last = start + frames - 1;
    if (this.framing.keyframes.length === 1) return this.look(start, frames);
    // Pieces between keyframes: inside one, all values change along one curve.
    let from = start;
    for (const { frame } of this.framing.keyframes) {
      const found = this.firstAt(frame, from, last);
      if (found > from) this.piece(from, found - 1);
      from = Math.max(from, found);
    }
    if (from <= last) this.piece(from, last);
  }

  /** The first output frame of `from`…`last` that shows a master frame or a later one; `last` + 1 for none. */
  private firstAt(masterFrame: number, from: number, last: number): number {
    let [low, high] = [from, last + 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.masterFrame(middle) < masterFrame) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  private masterFrame(frame: number): number {
    return masterFrameIn(this.plan, this.segment, frame);
  }

  private piece(from: number, to: number): void {
    const { keyframes } = this.framing;
    const before = keyframeBefore(keyframes, this.masterFrame(from));
    const still = before < 0 || before === keyframes.length - 1;
    if (still) return this.look(from, to - from + 1);
    // The ends first: they are often the worst, and what is known to be bad lets the rest be skipped.
    this.look(from, 1);
    if (to > from) {
      this.look(to, 1);
      this.refine(from + 1, to - 1);
    }
  }

  private refine(from: number, to: number): void {
    if (from > to) return;
    if (from === to) return this.look(from, 1);
    if (this.boundOver(from, to) >= this.result.leastMargin) return;
    const middle = (from + to) >> 1;
    this.refine(from, middle);
    this.refine(middle + 1, to);
  }

  private boundOver(from: number, to: number): number {
    const { keyframes, turn } = this.framing;
    const first = keyframeAt(keyframes, this.masterFrame(from));
    const last = keyframeAt(keyframes, this.masterFrame(to));
    return leastMargin(first, last, turn, this.aspects, this.segment.liveSize.height);
  }

  /** One geometry, for as many frames as it stands. */
  private look(frame: number, count: number): void {
    const window = windowAt(this.framing, this.masterFrame(frame), this.aspects);
    const { left, right, top, bottom } = marginOf(window, this.segment.liveSize);
    // An axis that the window fills has no margin, by design: the other one counts.
    const slack = Math.max(Math.min(left, right), Math.min(top, bottom));
    const { result } = this;
    if (slack < result.leastMargin) {
      result.leastMargin = slack;
      if (result.covered) result.worstFrame = frame;
    }
    if (Math.min(left, right, top, bottom) >= -EPSILON || !this.counts || this.counted.has(frame)) return;
    this.counted.add(frame);
    addBare(result, 'outside', this.segment, frame, count);
  }
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
