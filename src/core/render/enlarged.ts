import type { RenderPlan } from './plan';
import { segmentFacts } from './segment-facts';

/** Where a plan enlarges its master most. */
export interface Enlargement {
  /** Canvas pixels per master pixel. */
  worst: number;
  /** Output frame. */
  frame: number;
}

/** The worst enlargement of each shot of a plan, in the order of the cut. */
export function listEnlargedByShot(plan: RenderPlan): Map<string, Enlargement> {
  const found = new Map<string, Enlargement>();
  for (const segment of plan.segments) {
    const { value, offset } = segmentFacts(plan, segment).enlarged;
    if (value <= (found.get(segment.shot)?.worst ?? 0)) continue;
    found.set(segment.shot, { worst: value, frame: segment.start + offset });
  }
  return found;
}

/** The worst enlargement of one shot, if the plan has it. */
export function findEnlargement(plan: RenderPlan, shot: string): Enlargement | undefined {
  const segments = plan.segments.filter((segment) => segment.shot === shot);
  return listEnlargedByShot({ ...plan, segments }).get(shot);
}
