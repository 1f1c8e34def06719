import { keyframeAt } from '../../framing/framing';
import { sharedShare, shows } from '../../layout/overlap';
import { distinctFrames, frameOf, type PlanSegment, type RenderPlan, segmentAt } from '../../render/plan';
import type { Rule } from '../finding';

/** Below this share two pieces only touch. */
const TOUCHES = 0.01;

/** Where one pane's piece lies in another's. */
export interface Shared {
  /** Output frame. */
  frame: number;
  shot: string;
  /** Places of the panes, from 0: the one whose piece is shown, and the one that shows it too. */
  of: number;
  by: number;
  /** Share of the piece, 0…1. */
  share: number;
  /** Whether the focus itself lies in the other pane's window. */
  subject: boolean;
}

/** The worst shared piece of each segment in which panes of different tracks share one. */
export function sharedPieces(plan: RenderPlan): Shared[] {
  const worst = new Map<PlanSegment, Shared>();
  const several = plan.segments.some(({ panes }) => new Set(panes.map((pane) => pane.track)).size > 1);
  if (!several) return [];
  for (const { frame } of distinctFrames(plan)) {
    const segment = segmentAt(plan, frame);
    const known = worst.get(segment);
    const found = sharedAt(plan, segment, frame);
    if (found && (!known || rank(found) > rank(known))) worst.set(segment, found);
  }
  return [...worst.values()];
}

const rank = ({ subject, share }: Shared): number => (subject ? 1 : 0) + share;

function sharedAt(plan: RenderPlan, segment: PlanSegment, frame: number): Shared | null {
  const { panes, liveSize, masterFrame } = frameOf(plan, frame);
  const live = liveSize.width / liveSize.height;
  let worst: Shared | null = null;
  panes.forEach((one, of) => {
    panes.forEach((other, by) => {
      const framing = segment.panes[of]?.framing;
      if (one.track === other.track || !framing) return;
      const share = sharedShare(one.framed, other.framed, live);
      if (share < TOUCHES) return;
      const { focus } = keyframeAt(framing.keyframes, masterFrame);
      const subject = shows(other.framed, focus, live);
      const found = { frame, shot: segment.shot, of, by, share, subject };
      if (!worst || rank(found) > rank(worst)) worst = found;
    });
  });
  return worst;
}

/** No pane shows the subject of another. */
export const panesRule: Rule = {
  id: 'panes',
  check({ plan }) {
    const shared = sharedPieces(plan);
    const base = { rule: 'panes', limit: null, unit: '', holds: 'export' } as const;
    const [worst] = [...shared].sort((a, b) => rank(b) - rank(a));
    if (!worst) return { ...base, measured: 'nothing shared', severity: 'pass', code: 'apart' };
    const shots = new Set(shared.map((one) => one.shot)).size;
    return {
      ...base,
      measured:
        `${shots} ${shots === 1 ? 'shot' : 'shots'}, at worst ${Math.round(worst.share * 100)} % ` +
        `of pane ${worst.of + 1} in pane ${worst.by + 1}`,
      severity: worst.subject ? 'warn' : 'note',
      code: worst.subject ? 'subject' : 'overlap',
      at: worst.frame,
    };
  },
};
