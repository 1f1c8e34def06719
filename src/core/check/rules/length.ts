import { judgeLength } from '../../outlets/limits/length';
import { toMasterLengths, trimCut } from '../../cut/cut';
import { OWN_KEY } from '../../outlets/outlets';
import { countFramesWithin, toSeconds } from '../../time/frame-rate';
import { exportRule, outcome } from '../rule';

/** Seconds. */
interface Length {
  seconds: number;
}
interface LimitValues extends Length {
  limit: number;
}
interface BestValues extends Length {
  from: number;
  to: number;
}

const figures = ({ seconds, limit }: LimitValues): string =>
  `${Number(seconds.toFixed(2))} s, limit ${limit} s`;

/** The clip's length against the placement's limit and its best range. */
export const lengthRule = exportRule({
  name: 'Length',
  reads: ['cut', 'plan', 'target', 'sources'],
  outcomes: {
    over: outcome<LimitValues>(
      ({ seconds, limit }, { label }) =>
        `${(seconds - limit).toFixed(1)} s over the ${limit} s limit of ${label}. Trim to ${limit} s.`,
      figures,
    ),
    short: outcome<LimitValues>(
      ({ seconds, limit }, { label }) =>
        `${seconds.toFixed(1)} s, but ${label} takes clips of ${limit} s or more. Keep more of the master.`,
      ({ seconds, limit }) => `${Number(seconds.toFixed(2))} s, least ${limit} s`,
    ),
    within: outcome<LimitValues>(
      ({ seconds, limit }, { label }) => `${seconds.toFixed(1)} s, within the ${limit} s limit of ${label}.`,
      figures,
    ),
    'outside-best': outcome<BestValues>(
      ({ seconds, from, to }, { label }) =>
        `${seconds.toFixed(1)} s: allowed, but clips on ${label} do best at ${from}–${to} s.`,
      ({ seconds, from, to }) => `${Number(seconds.toFixed(2))} s, best ${from}–${to} s`,
    ),
    free: outcome<Length>(
      ({ seconds }) => `${seconds.toFixed(1)} s. No outlet sets a limit.`,
      ({ seconds }) => `${Number(seconds.toFixed(2))} s`,
    ),
  },
  check({ cut: kept, plan, target, sources }) {
    const { most: limit, least, best } = target.placement.length;
    const seconds = toSeconds(plan.frames, plan.rate);
    const allowed = countFramesWithin(limit, plan.rate);
    if (target.key === OWN_KEY) return { severity: 'pass', code: 'free', values: { seconds } };
    const broken = judgeLength(plan, target.placement);
    if (broken === 'over') {
      // The end card stays: what is cut leaves room for it.
      const room = Math.max(1, allowed - plan.cardFrames);
      const cut = trimCut(kept, room, toMasterLengths(sources), plan.rate);
      return {
        severity: 'stop',
        code: 'over',
        values: { seconds, limit },
        frame: allowed,
        fix: { fix: 'trim-to-length', values: { limit, cut } },
      };
    }
    if (broken === 'short') {
      return { severity: 'stop', code: 'short', values: { seconds, limit: least ?? 0 } };
    }
    if (best && (seconds < best.from || seconds > best.to)) {
      return { severity: 'note', code: 'outside-best', values: { seconds, ...best } };
    }
    return { severity: 'pass', code: 'within', values: { seconds, limit } };
  },
});
