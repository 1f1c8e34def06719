import { ratiosLabel, isRatioTaken } from '../../outlets/taken-sizes';
import { ratioLabel } from '../../picture/size';
import { exportRule, outcome } from '../rule';

interface Ratios {
  has: string;
  asked: string;
}
const figures = ({ has, asked }: Ratios): string => `${has}; asked ${asked}`;

/** The canvas's ratio against those that the placement shows whole. */
export const ratioRule = exportRule({
  name: 'Ratio',
  reads: ['canvas', 'target'],
  outlet: true,
  outcomes: {
    same: outcome<Ratios>(({ has }, { label }) => `${has}, as ${label} shows it.`, figures),
    differs: outcome<Ratios>(
      ({ has, asked }, { label }) =>
        `${has}, but ${label} shows ${asked}: it would cut the clip off or put bars beside it.`,
      figures,
    ),
  },
  check({ canvas, target }) {
    const { sizes } = target.placement;
    const values = { has: ratioLabel(canvas), asked: ratiosLabel(sizes) };
    return isRatioTaken(sizes, canvas)
      ? { severity: 'pass', code: 'same', values }
      : { severity: 'stop', code: 'differs', values };
  },
});
