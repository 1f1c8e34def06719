import { costWords } from '../../render/rate-cost';
import { compareRates, rateLabel } from '../../time/frame-rate';
import type { Rule } from '../finding';

/** The canvas's rate equal to the masters', and within the outlet's. */
export const rateRule: Rule = {
  id: 'rate',
  check({ canvas, sources, plan, target }) {
    const { maxRate } = target.placement;
    const base = {
      rule: 'rate',
      measured: rateLabel(canvas.rate),
      limit: rateLabel(maxRate),
      unit: 'fps',
      holds: 'export',
    } as const;
    if (compareRates(canvas.rate, maxRate) > 0) return { ...base, severity: 'stop', code: 'over' };
    const [first] = sources;
    const others = sources.filter((source) => compareRates(source.rate, canvas.rate) !== 0);
    if (first && others.length > 0) {
      const mixed = sources.some((source) => compareRates(source.rate, first.rate) !== 0);
      return {
        ...base,
        severity: mixed ? 'note' : 'warn',
        code: mixed ? 'mixed' : 'differs',
        limit: costWords(plan),
        unit: '',
        ...(compareRates(first.rate, canvas.rate) === 0
          ? {}
          : {
              fix: {
                label: `Take ${rateLabel(first.rate)} fps`,
                command: { type: 'set-rate', rate: first.rate },
              },
            }),
      };
    }
    const varying = sources.find((source) => !source.constantRate);
    if (varying) {
      const limit = `${varying.repeated} frames repeat, ${varying.dropped} vanish`;
      return { ...base, severity: 'warn', code: 'varies', limit, unit: '' };
    }
    return { ...base, severity: 'pass', code: 'same' };
  },
};
