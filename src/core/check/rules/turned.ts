import { formatCount } from '../../figures/figures';
import { exportRule, outcome } from '../rule';

interface TurnedValues {
  shots: number;
  of: number;
}
const figures = ({ shots, of }: TurnedValues): string => `${shots} of ${formatCount(of, 'shot')}`;

/** Shots whose picture lies on its side: a viewer has to turn the phone. */
export const turnedRule = exportRule({
  name: 'Turned picture',
  reads: ['plan'],
  outcomes: {
    upright: outcome<object>(
      () => 'Every shot stands upright.',
      () => 'none turned',
    ),
    turned: outcome<TurnedValues>(
      (values) => `The picture is turned in ${figures(values)}: viewers have to turn their phone.`,
      figures,
    ),
  },
  check({ plan }) {
    const shots = new Set(plan.segments.map(({ shot }) => shot));
    const turned = plan.segments.filter(({ panes }) =>
      panes.some(({ framing }) => (framing?.turn ?? 0) !== 0),
    );
    const [first] = turned;
    if (!first) return { severity: 'pass', code: 'upright', values: {} };
    const values = { shots: new Set(turned.map(({ shot }) => shot)).size, of: shots.size };
    return { severity: 'note', code: 'turned', values, frame: first.start };
  },
});
