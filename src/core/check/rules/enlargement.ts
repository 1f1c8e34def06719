import { percent } from '../../figures/figures';
import { listEnlargedByShot } from '../../render/enlarged';
import { exportRule, outcome } from '../rule';

/** A 1080-line master fills a tall canvas at 1.778; past twice its size it looks soft (common practice, no source). */
export const SOFT = 2;

/** Canvas pixels per master pixel. */
interface EnlargedValues {
  worst: number;
}
const figures = ({ worst }: EnlargedValues): string => `${percent(worst, 1)}, limit ${percent(SOFT, 1)}`;

/** Canvas pixels per master pixel, worst over the clip. */
export const enlargementRule = exportRule({
  name: 'Enlargement',
  reads: ['plan'],
  outcomes: {
    soft: outcome<EnlargedValues>(
      ({ worst }) =>
        `The master is enlarged to ${percent(worst)}, and looks soft past ${percent(SOFT)}. ` +
        'Zoom out, or bring in a larger master.',
      figures,
    ),
    enlarged: outcome<EnlargedValues>(
      ({ worst }) => `The master is enlarged to ${percent(worst, 1)} at most.`,
      figures,
    ),
    spare: outcome<EnlargedValues>(
      ({ worst }) => `The master has pixels to spare: it is shown at ${percent(worst, 1)}.`,
      figures,
    ),
  },
  check({ plan }) {
    const { worst, frame } = [...listEnlargedByShot(plan).values()].reduce(
      (most, enlarged) => (enlarged.worst > most.worst ? enlarged : most),
      { worst: 0, frame: 0 },
    );
    if (worst > SOFT) return { severity: 'warn', code: 'soft', values: { worst }, frame };
    return { severity: 'pass', code: worst > 1 ? 'enlarged' : 'spare', values: { worst }, frame };
  },
});
