import { ratioLabel, type Size } from '../../picture/size';
import { exportRule, outcome } from '../rule';

interface Ratios {
  has: string;
  asked: string;
}
const figures = ({ has, asked }: Ratios): string => `${has}; asked ${asked}`;
/** Ratios that differ by less look the same. */
const ALIKE = 0.01;

/** The still that is shown before the clip plays: its first frame, in the cover's ratio. */
export const coverRule = exportRule({
  name: 'Cover',
  reads: ['canvas', 'target'],
  outlet: true,
  outcomes: {
    none: outcome<object>(
      (_, { label }) => `${label} takes no cover.`,
      () => 'no cover',
    ),
    whole: outcome<Ratios>(
      ({ asked }) =>
        `The first frame is the cover, ${asked}. Choose where the clip begins with that in mind.`,
      figures,
    ),
    cropped: outcome<Ratios>(
      ({ has, asked }, { label }) =>
        `The first frame is the cover. ${label} shows covers of ${asked}, and cuts the clip's ${has} off.`,
      figures,
    ),
  },
  check({ canvas, target }) {
    const { cover } = target.placement;
    if (!cover) return { severity: 'pass', code: 'none', values: {} };
    const label = (size: Size) => `${ratioLabel(size)}, ${size.width}×${size.height}`;
    const values = { has: label(canvas), asked: label(cover) };
    const alike = Math.abs((canvas.width * cover.height) / (canvas.height * cover.width) - 1) < ALIKE;
    return alike
      ? { severity: 'pass', code: 'whole', values }
      : { severity: 'note', code: 'cropped', values };
  },
});
