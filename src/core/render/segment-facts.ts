import { enlargement, computeMargin } from '../framing/moves';
import { computeWindow } from '../framing/window';
import { memoize } from '../figures/memoize';
import { memoizePane } from './memoize-pane';
import { computeMasterFrame, type PlanPane, type PlanSegment, type RenderPlan } from './plan';

/** The worst of something over a segment, and how many output frames after its first. */
interface WorstCoverage {
  value: number;
  offset: number;
}

/** Facts of a segment's windows. */
export interface SegmentFacts {
  /** Least distance to the picture's edge along the axis in which a window can move, in picture pixels. */
  slack: WorstCoverage;
  /** Most canvas pixels per picture pixel. A blurred pane has no detail to lose. */
  enlarged: WorstCoverage;
}

/** In a drag only the shot at hand is worked out anew. */
const factsOfPane = memoizePane(toFacts);

/** The facts of a segment over all of its panes. A segment is of one plan's sources and rate. */
export const segmentFacts = memoize(overPanes, (_, segment) => [segment]);

function overPanes(plan: RenderPlan, segment: PlanSegment): SegmentFacts {
  const facts = segment.panes.map((pane) => factsOfPane(plan, segment, pane));
  const first = (pick: keyof SegmentFacts, worse: (a: number, b: number) => boolean) =>
    facts.map((fact) => fact[pick]).reduce((worst, next) => (worse(next.value, worst.value) ? next : worst));
  return { slack: first('slack', (a, b) => a < b), enlarged: first('enlarged', (a, b) => a > b) };
}

function toFacts(plan: RenderPlan, segment: PlanSegment, pane: PlanPane): SegmentFacts {
  const { framing, picture, blur } = pane;
  const { liveSize } = segment;
  const frames = (framing?.keyframes.length ?? 0) > 1 ? segment.frames : 1;
  const aspects = { pane: picture.width / picture.height, live: liveSize.width / liveSize.height };
  const slack = { value: Infinity, offset: 0 };
  const enlarged = { value: 0, offset: 0 };
  const take = (window: Parameters<typeof computeMargin>[0], offset: number) => {
    const { left, right, top, bottom } = computeMargin(window, liveSize);
    // An axis that the window fills has no margin, by design: the other one counts.
    const room = Math.max(Math.min(left, right), Math.min(top, bottom));
    if (framing && room < slack.value) Object.assign(slack, { value: room, offset });
    const by = blur > 0 ? 0 : enlargement(window, liveSize, picture.width);
    if (by > enlarged.value) Object.assign(enlarged, { value: by, offset });
  };
  if (!framing) take({ x: 0, y: 0, width: 1, height: 1, angle: 0 }, 0);
  else {
    for (let n = 0; n < frames; n++) {
      take(computeWindow(framing, computeMasterFrame(plan, segment, segment.start + n), aspects), n);
    }
  }
  return { slack, enlarged };
}
