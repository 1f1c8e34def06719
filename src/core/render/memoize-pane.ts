import { memoize } from '../figures/memoize';
import type { PlanPane, PlanSegment, RenderPlan } from './plan';

type PaneWork<T> = (plan: RenderPlan, segment: PlanSegment, pane: PlanPane) => T;

/**
 * Remembers what was worked out of a pane of a segment, by the keyframes and the places of the subject that it comes from,
 * which stay the same objects until a person changes them, and by where the segment lies: plans of other clips and of
 * later moments find it again.
 */
export function memoizePane<T>(work: PaneWork<T>): PaneWork<T> {
  const remembered = memoize(work, collectKeys);
  // One geometry is as quick to work out as to look up.
  return (plan, segment, pane) =>
    (pane.framing?.keyframes.length ?? 1) === 1 ? work(plan, segment, pane) : remembered(plan, segment, pane);
}

function collectKeys(plan: RenderPlan, segment: PlanSegment, { framing, picture, blur }: PlanPane) {
  const { start, frames, rangeStart, rangeIn, liveSize, source } = segment;
  const { keyframes = [], subject = keyframes, turn } = framing ?? {};
  const rate = plan.sources[source]?.rate;
  const place = [
    ...[start - rangeStart, frames, rangeIn, plan.rate.num, plan.rate.den, rate?.num, rate?.den],
    ...[turn, picture.x, picture.y, picture.width, picture.height, liveSize.width, liveSize.height, blur],
  ];
  return [keyframes, subject, place.join()] as const;
}
