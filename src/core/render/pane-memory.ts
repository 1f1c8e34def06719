import type { PlanPane, PlanSegment, RenderPlan } from './plan';

/**
 * Remembers what was worked out of a pane of a segment, by the keyframes and the places of the subject that it comes from,
 * which stay the same objects until a person changes them, and by where the segment lies: plans of other clips and of
 * later moments find it again.
 */
export class PaneMemory<T> {
  private readonly known = new WeakMap<object, WeakMap<object, Map<string, T>>>();

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
    const { keyframes, subject = keyframes } = framing;
    const bySubject = this.known.get(keyframes) ?? new WeakMap<object, Map<string, T>>();
    this.known.set(keyframes, bySubject);
    const byKey = bySubject.get(subject) ?? new Map<string, T>();
    bySubject.set(subject, byKey);
    const found = byKey.get(key) ?? this.work(plan, segment, pane);
    byKey.set(key, found);
    return found;
  }
}
