import { compareRates, rateLabel } from '../../time/frame-rate';
import type { Rule } from '../finding';

/** The canvas's rate equal to the master's, and within the outlet's. */
export const rateRule: Rule = {
  id: 'rate',
  check({ canvas, master, target }) {
    const { maxRate } = target.placement;
    const base = {
      rule: 'rate',
      measured: rateLabel(canvas.rate),
      limit: rateLabel(maxRate),
      unit: 'fps',
      holds: 'export',
    } as const;
    if (compareRates(canvas.rate, maxRate) > 0) return { ...base, severity: 'stop', code: 'over' };
    if (compareRates(canvas.rate, master.rate) !== 0) {
      return {
        ...base,
        severity: 'warn',
        code: 'differs',
        limit: rateLabel(master.rate),
        fix: {
          label: "Take the master's rate",
          command: { type: 'choose-placement', placement: target.key },
        },
      };
    }
    if (!master.constantRate) return { ...base, severity: 'warn', code: 'varies' };
    return { ...base, severity: 'pass', code: 'same' };
  },
};
