import type { PlanPane, PlanSegment, RenderPlan } from './plan';

/**
 * Remembers what was worked out of a pane of a segment, by the keyframes that it comes from, which stay the same object
 * until a person changes them, and by where the segment lies: plans of other clips and of later moments find it again.
 */
export class PaneMemory<T> {
  private readonly known = new WeakMap<object, Map<string, T>>();

  constructor(private readonly work: (plan: RenderPlan, segment: PlanSegment, pane: PlanPane) => T) {}

  of(plan: RenderPlan, segment: PlanSegment, pane: PlanPane): T {
    const { framing, picture } = pane;
    // One geometry is as quick to work out as to look up.
    if (!framing || framing.keyframes.length === 1) return this.work(plan, segment, pane);
    const { start, frames, rangeStart, rangeIn, liveSize, source } = segment;
    const rate = plan.sources[source]?.rate;
    const key = [
      ...[start - rangeStart, frames, rangeIn, plan.rate.num, plan.rate.den, rate?.num, rate?.den],
      ...[framing.turn, picture.x, picture.y, picture.width, picture.height],
      ...[liveSize.width, liveSize.height, pane.blur],
    ].join();
    const byKey = this.known.get(framing.keyframes) ?? new Map<string, T>();
    this.known.set(framing.keyframes, byKey);
    const found = byKey.get(key) ?? this.work(plan, segment, pane);
    byKey.set(key, found);
    return found;
  }
}
