import { trimmedTo } from '../../cut/cut';
import { OWN_KEY } from '../../outlets/outlets';
import { framesWithin, secondsOf } from '../../time/frame-rate';
import type { Rule } from '../finding';

/** The clip's length against the placement's limit and its best range. */
export const lengthRule: Rule = {
  id: 'length',
  check({ clip, plan, target, masters }) {
    const { maxSeconds, bestSeconds } = target.placement;
    const measured = secondsOf(plan.frames, plan.rate);
    const allowed = framesWithin(maxSeconds, plan.rate);
    const base = { rule: 'length', measured, limit: maxSeconds, unit: 's', holds: 'export' } as const;
    if (target.key === OWN_KEY) return { ...base, severity: 'pass', code: 'free', limit: null };
    if (plan.frames > allowed) {
      return {
        ...base,
        severity: 'stop',
        code: 'over',
        at: allowed,
        fix: {
          label: `Trim to ${maxSeconds} s`,
          command: {
            type: 'set-cut',
            act: 'trim',
            cut: trimmedTo(clip.cut, allowed, masters, plan.rate),
          },
        },
      };
    }
    if (bestSeconds && (measured < bestSeconds.from || measured > bestSeconds.to)) {
      return {
        ...base,
        severity: 'note',
        code: 'outside-best',
        limit: `${bestSeconds.from}–${bestSeconds.to}`,
      };
    }
    return { ...base, severity: 'pass', code: 'within' };
  },
};
