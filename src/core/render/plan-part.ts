import type { RenderPlan } from './plan';

/**
 * A plan with those of its segments alone that show some output frames, cut to them; their numbers stay.
 * @param from first output frame. @param to the first that is not wanted any more.
 */
export function planPart(plan: RenderPlan, from: number, to: number): RenderPlan {
  const segments = plan.segments.flatMap((segment) => {
    const start = Math.max(from, segment.start);
    const frames = Math.min(to, segment.start + segment.frames) - start;
    return frames > 0 ? [{ ...segment, start, frames }] : [];
  });
  return { ...plan, segments };
}
