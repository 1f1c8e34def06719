import type { RenderPlan } from './plan';
import { segmentFacts } from './segment-facts';

/** Where a plan enlarges its master most. */
export interface Enlarged {
  /** Canvas pixels per master pixel. */
  worst: number;
  /** Output frame. */
  frame: number;
}

/** The worst enlargement of each shot of a plan, in the order of the cut. */
export function enlargedByShot(plan: RenderPlan): Map<string, Enlarged> {
  const found = new Map<string, Enlarged>();
  for (const segment of plan.segments) {
    const { value, offset } = segmentFacts(plan, segment).enlarged;
    if (value <= (found.get(segment.shot)?.worst ?? 0)) continue;
    found.set(segment.shot, { worst: value, frame: segment.start + offset });
  }
  return found;
}

/** The worst enlargement of one shot, if the plan has it. */
export function findEnlargement(plan: RenderPlan, shot: string): Enlarged | undefined {
  const segments = plan.segments.filter((segment) => segment.shot === shot);
  return enlargedByShot({ ...plan, segments }).get(shot);
}
