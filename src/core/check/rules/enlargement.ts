import { enlargement } from '../../framing/moves';
import { distinctFrames, frameOf } from '../../render/plan';
import type { Rule } from '../finding';

/** A 1080-line master fills a tall canvas at 1.778; past twice its size it looks soft (common practice, no source). */
const SOFT = 2;

/** Canvas pixels per master pixel, worst over the clip. */
export const enlargementRule: Rule = {
  id: 'enlargement',
  check({ plan }) {
    let worst = 0;
    let at = 0;
    for (const { frame } of distinctFrames(plan)) {
      const { panes, liveSize } = frameOf(plan, frame);
      for (const { picture, framed } of panes) {
        const value = enlargement(framed, liveSize, picture.width);
        if (value > worst) [worst, at] = [value, frame];
      }
    }
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
