import type { Framing, Values } from '../framing/framing';
import { type Aspects, leastZoom, widestHeight } from '../framing/window';
import { between, directions, heldWithin, type Interval, minus, plus, times } from './interval';

/**
 * A lower bound on the margin of every window between two sets of values, along the axis that has more of it, in
 * picture pixels. It holds whatever curve leads from one to the other: curves never overshoot, so each value lies
 * between its two ends. Arithmetic of intervals, as {@link windowOf} of numbers.
 *
 * It is never below zero: a window is at most as high as the widest of its own angle, whose bounding box fits the
 * live area, and its centre is then held inside.
 *
 * @param rows height of the live area in pixels.
 */
export function leastMargin(
  a: Values,
  b: Values,
  turn: Framing['turn'],
  aspects: Aspects,
  rows: number,
): number {
  const { live, pane } = aspects;
  const tilt = between(a.tilt, b.tilt);
  const { cos, sin, absCos, absSin } = directions([turn + tilt[0], turn + tilt[1]]);
  const height = heights(between(a.zoom, b.zoom), tilt, turn, aspects, absCos, absSin);
  const width: Interval = [height[0] * pane, height[1] * pane];
  const half = (interval: Interval): Interval => [interval[0] / 2, interval[1] / 2];
  const halfX = half(plus(times(width, absCos), times(height, absSin)));
  const halfY = half(plus(times(width, absSin), times(height, absCos)));
  const across = times([Math.min(a.seat.x, b.seat.x) - 0.5, Math.max(a.seat.x, b.seat.x) - 0.5], width);
  const down = times([Math.min(a.seat.y, b.seat.y) - 0.5, Math.max(a.seat.y, b.seat.y) - 0.5], height);
  const x = minus(between(a.focus.x * live, b.focus.x * live), minus(times(across, cos), times(down, sin)));
  const y = minus(between(a.focus.y, b.focus.y), plus(times(across, sin), times(down, cos)));
  return Math.max(0, slackOf(x, halfX, live), slackOf(y, halfY, 1)) * rows;
}

/** Heights of the windows, in live-area heights. */
function heights(
  zoom: Interval,
  tilt: Interval,
  turn: Framing['turn'],
  aspects: Aspects,
  absCos: Interval,
  absSin: Interval,
): Interval {
  const { pane, live } = aspects;
  const widest = widestHeight(aspects, turn);
  if (tilt[0] === tilt[1]) {
    const least = leastZoom(aspects, turn, tilt[0]);
    return [widest / Math.max(zoom[1], least), widest / Math.max(zoom[0], least)];
  }
  const most = Math.min(live / (pane * absCos[0] + absSin[0]), 1 / (pane * absSin[0] + absCos[0]));
  const fewest = Math.min(live / (pane * absCos[1] + absSin[1]), 1 / (pane * absSin[1] + absCos[1]));
  const least: Interval = [Math.max(1, widest / most), Math.max(1, widest / fewest)];
  return [widest / Math.max(zoom[1], least[1]), widest / Math.max(zoom[0], least[0])];
}

/** A lower bound on the nearer edge's distance along one axis. */
function slackOf(centre: Interval, half: Interval, length: number): number {
  const bounded = heldWithin(centre, half, [length - half[1], length - half[0]]);
  return Math.min(bounded[0] - half[1], length - bounded[1] - half[1]);
}
