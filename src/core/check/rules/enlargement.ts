import { enlargedByShot } from '../../render/enlarged';
import type { Rule } from '../finding';

/** A 1080-line master fills a tall canvas at 1.778; past twice its size it looks soft (common practice, no source). */
export const SOFT = 2;

/** Canvas pixels per master pixel, worst over the clip. */
export const enlargementRule: Rule = {
  id: 'enlargement',
  check({ plan }) {
    const { worst, frame: at } = [...enlargedByShot(plan).values()].reduce(
      (most, one) => (one.worst > most.worst ? one : most),
      { worst: 0, frame: 0 },
    );
    const base = {
      rule: 'enlargement',
      measured: worst,
      limit: SOFT,
      unit: '×',
      holds: 'export',
      at,
    } as const;
    if (worst > SOFT) return { ...base, severity: 'warn', code: 'soft' };
    return { ...base, severity: 'pass', code: worst > 1 ? 'enlarged' : 'spare' };
  },
};
