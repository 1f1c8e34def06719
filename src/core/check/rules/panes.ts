import { formatCount } from '../../figures/figures';
import { findSubjectPoint } from '../../framing/framing';
import { computeSharedShare, hasPoint } from '../../layout/overlap';
import {
  distinctFrames,
  plannedFrame,
  type PlanSegment,
  type RenderPlan,
  findSegment,
} from '../../render/plan';
import { exportRule, outcome } from '../rule';

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
  /** True when the subject itself lies in the other pane's window. */
  subject: boolean;
}

/** The worst shared piece of each segment in which panes of different tracks share one. */
export function listSharedPieces(plan: RenderPlan): Shared[] {
  const worst = new Map<PlanSegment, Shared>();
  const several = plan.segments.some(({ panes }) => new Set(panes.map((pane) => pane.track)).size > 1);
  if (!several) return [];
  for (const { frame } of distinctFrames(plan)) {
    const segment = findSegment(plan, frame);
    const known = worst.get(segment);
    const found = findShared(plan, segment, frame);
    if (found && (!known || rank(found) > rank(known))) worst.set(segment, found);
  }
  return [...worst.values()];
}

const rank = ({ subject, share }: Shared): number => (subject ? 1 : 0) + share;

function findShared(plan: RenderPlan, segment: PlanSegment, frame: number): Shared | null {
  const { panes, liveSize, masterFrame } = plannedFrame(plan, frame);
  const live = liveSize.width / liveSize.height;
  let worst: Shared | null = null;
  panes.forEach((pane, of) => {
    panes.forEach((other, by) => {
      const framing = segment.panes[of]?.framing;
      if (pane.track === other.track || !framing) return;
      const share = computeSharedShare(pane.framed, other.framed, live);
      if (share < TOUCHES) return;
      const subject = hasPoint(other.framed, findSubjectPoint(framing, masterFrame), live);
      const found = { frame, shot: segment.shot, of, by, share, subject };
      if (!worst || rank(found) > rank(worst)) worst = found;
    });
  });
  return worst;
}

interface SharedValues {
  shots: number;
  /** Of a pane's piece, in percent, and the places of the panes from 1. */
  percent: number;
  of: number;
  by: number;
}
const describeShared = ({ shots, percent, of, by }: SharedValues): string =>
  `${formatCount(shots, 'shot')}, at worst ${percent} % of pane ${of} in pane ${by}`;

/** No pane shows the subject of another. */
export const panesRule = exportRule({
  name: 'Panes apart',
  reads: ['plan'],
  outcomes: {
    apart: outcome<object>(
      () => 'No pane shows what another shows.',
      () => 'nothing shared',
    ),
    overlap: outcome<SharedValues>(
      (values) => `Panes share a piece of the picture: ${describeShared(values)}.`,
      describeShared,
    ),
    subject: outcome<SharedValues>(
      (values) => `The same subject is seen twice: ${describeShared(values)}. Move one of the windows.`,
      describeShared,
    ),
  },
  check({ plan }) {
    const pieces = listSharedPieces(plan);
    const [worst] = [...pieces].sort((a, b) => rank(b) - rank(a));
    if (!worst) return { severity: 'pass', code: 'apart', values: {} };
    const values = {
      shots: new Set(pieces.map((piece) => piece.shot)).size,
      percent: Math.round(worst.share * 100),
      of: worst.of + 1,
      by: worst.by + 1,
    };
    const { frame, subject } = worst;
    return { severity: subject ? 'warn' : 'note', code: subject ? 'subject' : 'overlap', values, frame };
  },
});
