import { enlargement } from '../framing/moves';
import { distinctFrames, plannedFrame, type RenderPlan, segmentAt } from './plan';

/** Where a plan enlarges its master most. */
export interface Enlarged {
  /** Canvas pixels per master pixel. */
  worst: number;
  /** Output frame. */
  frame: number;
}

/** The worst enlargement of each shot of a plan, in the order of the cut. A blurred pane has no detail to lose. */
export function enlargedByShot(plan: RenderPlan): Map<string, Enlarged> {
  const found = new Map<string, Enlarged>();
  for (const { frame } of distinctFrames(plan)) {
    const { panes, liveSize } = plannedFrame(plan, frame);
    const { shot } = segmentAt(plan, frame);
    for (const { framed, picture, blur } of panes) {
      if (blur > 0) continue;
      const value = enlargement(framed, liveSize, picture.width);
      if (value > (found.get(shot)?.worst ?? 0)) found.set(shot, { worst: value, frame });
    }
  }
  return found;
}
