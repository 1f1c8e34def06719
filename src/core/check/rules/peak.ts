import { CEILING } from '../../sound/limiter';
import { exportRule, outcome } from '../rule';

/** True peak in dBTP. */
interface Peak {
  peak: number;
  limit: number;
}
const figures = ({ peak, limit }: Peak): string => `${peak.toFixed(1)} dBTP, limit ${limit} dBTP`;

/** The sound's true peak: what is over the ceiling is held under it, and clipped sound stays clipped. */
export const peakRule = exportRule({
  name: 'True peak',
  reads: ['sources', 'looks', 'making'],
  outcomes: {
    unknown: outcome<object>(
      () => 'Not known yet: the master is still being analysed.',
      () => 'not known yet',
    ),
    none: outcome<object>(
      () => 'There is no sound to judge.',
      () => 'no sound',
    ),
    clipped: outcome<Peak>(
      ({ peak, limit }) =>
        `The master's sound reaches ${peak.toFixed(1)} dBTP: it is clipped, or close to it. The export holds it ` +
        `under ${limit} dBTP; what is cut off already stays so.`,
      figures,
    ),
    held: outcome<Peak>(
      ({ peak, limit }) =>
        `The master's true peak is ${peak.toFixed(1)} dBTP. The export holds it under ${limit} dBTP.`,
      figures,
    ),
    under: outcome<Peak>(({ peak, limit }) => `${peak.toFixed(1)} dBTP, under ${limit} dBTP.`, figures),
  },
  check({ sources, looks, making }) {
    if (sources.every(({ audio }) => audio === null)) return { severity: 'pass', code: 'none', values: {} };
    if (looks.some(({ pass }) => pass === null)) return { severity: 'unknown', code: 'unknown', values: {} };
    const peak = Math.max(-Infinity, ...looks.flatMap(({ pass }) => pass?.sound?.truePeak ?? []));
    if (peak === -Infinity) return { severity: 'pass', code: 'none', values: {} };
    const limit = making.sound?.ceiling ?? CEILING;
    if (peak > 0) return { severity: 'note', code: 'clipped', values: { peak, limit } };
    return peak > limit
      ? { severity: 'note', code: 'held', values: { peak, limit } }
      : { severity: 'pass', code: 'under', values: { peak, limit } };
  },
});
