import { judgeRate } from '../../outlets/limits/rate';
import { costWords } from '../../render/rate-cost';
import { compareRates, rateLabel } from '../../time/frame-rate';
import { exportRule, outcome } from '../rule';

interface Rate {
  /** Frames a second, as they are named. */
  rate: string;
}
interface LimitValues extends Rate {
  limit: string;
}
interface CostValues extends Rate {
  /** Frames that repeat or vanish, in words. */
  cost: string;
}
const describeLimited = ({ rate, limit }: LimitValues): string => `${rate} fps, limit ${limit} fps`;
const costly = ({ rate, cost }: CostValues): string => `${rate} fps, ${cost}`;

/** The canvas's rate equal to the masters', and within the outlet's. */
export const rateRule = exportRule({
  name: 'Frame rate',
  reads: ['canvas', 'sources', 'plan', 'target'],
  outcomes: {
    over: outcome<LimitValues>(
      ({ rate, limit }, { label }) =>
        `${rate} fps, but ${label} takes at most ${limit} fps. ` +
        'Choose a placement that takes this rate, or bring in a master at a lower one.',
      describeLimited,
    ),
    differs: outcome<CostValues>(
      ({ rate, cost }) => `${rate} fps, but the master runs at another rate: ${cost}.`,
      costly,
    ),
    mixed: outcome<CostValues>(
      ({ rate, cost }) => `${rate} fps, but the clip's masters run at different rates: ${cost}.`,
      costly,
    ),
    varies: outcome<CostValues>(
      ({ rate, cost }) => `The master's rate varies. The clip runs at an even ${rate} fps: ${cost}.`,
      costly,
    ),
    same: outcome<LimitValues>(({ rate }) => `${rate} fps, the same as the master.`, describeLimited),
  },
  check({ canvas, sources, plan, target }) {
    const { mostRate } = target.placement.video;
    const rate = rateLabel(canvas.rate);
    const limit = rateLabel(mostRate);
    if (judgeRate(canvas.rate, target.placement)) {
      return { severity: 'stop', code: 'over', values: { rate, limit } };
    }
    const [first] = sources;
    const others = sources.filter((source) => compareRates(source.rate, canvas.rate) !== 0);
    if (first && others.length > 0) {
      const mixed = sources.some((source) => compareRates(source.rate, first.rate) !== 0);
      const severity = mixed ? 'note' : 'warn';
      const code = mixed ? 'mixed' : 'differs';
      const found = { severity, code, values: { rate, cost: costWords(plan) } } as const;
      // A rate that the placement does not take is no cure.
      const isTaken = judgeRate(first.rate, target.placement) === null;
      if (compareRates(first.rate, canvas.rate) === 0 || !isTaken) return found;
      return { ...found, fix: { fix: 'take-rate', values: { rate: first.rate } } };
    }
    const varying = sources.find((source) => !source.constantRate);
    if (varying) {
      const cost = `${varying.repeated} frames repeat, ${varying.dropped} vanish`;
      return { severity: 'warn', code: 'varies', values: { rate, cost } };
    }
    return { severity: 'pass', code: 'same', values: { rate, limit } };
  },
});
