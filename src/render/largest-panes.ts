import type { Source } from '@core/master/source';
import type { Size } from '@core/picture/size';
import {
  computeMasterFrame,
  planPanes,
  type PlannedPane,
  type PlanSegment,
  type RenderPlan,
} from '@core/render/plan';
import { countTaps } from '@kernel/lanczos';
import { levelSize } from '@kernel/tilt';
import { computePart, toTiltedWindow } from './window-samples';

/** A pane of a plan at one frame. */
export interface PaneAt {
  segment: PlanSegment;
  index: number;
  pane: PlannedPane;
}

/**
 * The panes of a source that need the most memory of some kind: drawing each of them once makes every block as large
 * as any frame of the plan needs it.
 * @param stored size of the source's pictures as they are stored.
 */
export function largestPanes(plan: RenderPlan, source: number, stored: Size): PaneAt[] {
  const most = new Map<string, { need: number; at: PaneAt }>();
  for (const segment of plan.segments) {
    if (segment.source !== source) continue;
    const moves = segment.panes.some(({ framing }) => (framing?.keyframes.length ?? 0) > 1);
    for (let n = 0; n < (moves ? segment.frames : 1); n++) {
      const panes = planPanes(segment, computeMasterFrame(plan, segment, segment.start + n));
      for (const [index, pane] of panes.entries()) {
        for (const [kind, need] of listNeeds(pane, plan.sources[source] as Source, stored)) {
          const key = `${index} ${pane.blur > 0} ${kind}`;
          if (need > (most.get(key)?.need ?? 0)) most.set(key, { need, at: { segment, index, pane } });
        }
      }
    }
  }
  return [...most.values()].map(({ at }) => at);
}

/** Lists what the kernel keeps for a pane, by kind, each in units of its own. */
function listNeeds(pane: PlannedPane, source: Source, stored: Size): [kind: string, need: number][] {
  const window = toTiltedWindow(stored, source, pane.window);
  const part = computePart(stored, source, window);
  const tilted = window.angle !== 0 && pane.blur === 0;
  const drawn = tilted ? levelSize(pane.picture, window.angle) : pane.picture;
  const down = window.height / pane.picture.height;
  const across = tilted ? down / window.sampleAspect : window.width / pane.picture.width;
  // Chroma that is not halved is reduced twice as much.
  const [tapsAcross, tapsDown] = [countTaps(2 * across), countTaps(2 * down)];
  const kind = tilted ? 'tilted' : 'level';
  return [
    ['part', part.width * part.height],
    [`${kind} size`, drawn.width * drawn.height],
    [`${kind} across`, drawn.width * tapsAcross],
    [`${kind} down`, drawn.height * tapsDown],
    [`${kind} ring`, drawn.width * (tapsDown + 3)],
    [`${kind} wide`, drawn.width],
    [`${kind} high`, drawn.height],
  ];
}
