import { findSubjectPoint } from '../framing/framing';
import { computeWindow } from '../framing/window';
import { toWindowPoint } from '../layout/overlap';
import type { Source } from '../master/source';
import { scaleFrames } from '../time/frame-rate';
import type { SeenSubject } from './overlays';
import type { PlanPane, PlanSegment, RenderPlan } from './plan';

/** How far a subject that is followed reaches around the place that is looked at: a share of the pane's shorter side. */
const REACH = 0.13;

/** Where what is followed is seen on a canvas. */
export function listVisibleSubjects(plan: RenderPlan): SeenSubject[] {
  return plan.segments.flatMap((segment) => segment.panes.flatMap((pane) => listSeen(plan, segment, pane)));
}

/** Lists what is seen of a subject: one entry for each known place of it, until the next. */
function listSeen(plan: RenderPlan, segment: PlanSegment, { framing, picture }: PlanPane): SeenSubject[] {
  const own = framing?.subject ?? [];
  const { rate } = plan.sources[segment.source] as Source;
  const live = segment.liveSize.width / segment.liveSize.height;
  const aspects = { pane: picture.width / picture.height, live };
  const reach = REACH * Math.min(picture.width, picture.height);
  const end = segment.start + segment.frames;
  const toOutput = (frame: number) =>
    segment.rangeStart + scaleFrames(Math.max(0, frame - segment.rangeIn), rate, plan.rate);
  return own.flatMap((place, i): SeenSubject[] => {
    const next = own[i + 1];
    const from = i === 0 ? segment.start : Math.max(segment.start, toOutput(place.frame));
    const to = next ? Math.min(end, toOutput(next.frame)) : end;
    if (!framing || to <= from) return [];
    const seen = toWindowPoint(
      computeWindow(framing, place.frame, aspects),
      findSubjectPoint(framing, place.frame),
      live,
    );
    const [x, y] = [picture.x + seen.x * picture.width, picture.y + seen.y * picture.height];
    return [{ from, to, rect: { x: x - reach, y: y - reach, width: 2 * reach, height: 2 * reach } }];
  });
}
