import { formatCount } from '../../figures/figures';
import { exportRule, outcome } from '../rule';

interface Frames {
  filled: number;
  frames: number;
}
interface BareValues {
  bare: number;
  shots: number;
}
const onShots = ({ bare, shots }: BareValues): string => `on ${bare} of ${formatCount(shots, 'shot')}`;
const figures = ({ bare, shots }: BareValues): string => `${bare} of ${shots} shots`;

/** Every frame of the canvas filled with picture, from the geometry. */
export const coverageRule = exportRule({
  name: 'Every frame filled',
  reads: ['coverage', 'plan', 'target'],
  outcomes: {
    filled: outcome<Frames>(
      ({ frames }) => `All ${frames} frames are filled to the edge.`,
      ({ filled, frames }) => `${filled} of ${frames} frames`,
    ),
    bars: outcome<BareValues>(
      (values) =>
        `Bars ${onShots(values)}. The whole picture is fitted in; fill the canvas instead, or ` +
        'choose a layout with bands or a backdrop.',
      figures,
    ),
    gap: outcome<BareValues>(
      (values) => `The panes leave pixels bare ${onShots(values)}. Choose the layout again.`,
      figures,
    ),
  },
  check({ coverage, plan, target }) {
    const frame = coverage.worstFrame;
    if (coverage.covered) {
      const values = { filled: plan.frames - coverage.bareFrames, frames: plan.frames };
      return { severity: 'pass', code: 'filled', values, frame };
    }
    const severity = target.placement.bars === 'refused' ? 'stop' : 'warn';
    const values = { bare: coverage.bareShots.length, shots: coverage.shots };
    const found = { severity, code: coverage.reason ?? 'gap', values, frame } as const;
    if (coverage.reason !== 'bars') return found;
    return { ...found, fix: { fix: 'fill-canvas', values: {} } };
  },
});
