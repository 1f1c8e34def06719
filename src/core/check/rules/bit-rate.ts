import { judgeBitrate } from '../../outlets/limits/bit-rate';
import { bitsLabel } from '../../figures/figures';
import { exportRule, outcome } from '../rule';

/** Video bits a second. */
interface Bits {
  bits: number;
}
interface LimitValues extends Bits {
  limit: number;
}
const figures = ({ bits, limit }: LimitValues): string => `${bitsLabel(bits)}, limit ${bitsLabel(limit)}`;

/** The bit rate of the picture against the placement's, and against what the masters were recorded at. */
export const bitRateRule = exportRule({
  name: 'Bit rate',
  reads: ['sources', 'making', 'target'],
  outcomes: {
    none: outcome<object>(
      () => 'Sound alone has no picture.',
      () => 'no picture',
    ),
    over: outcome<LimitValues>(
      ({ bits, limit }, { label }) =>
        `${bitsLabel(bits)} is set, but ${label} takes at most ${bitsLabel(limit)}.`,
      figures,
    ),
    // Encoders here need more bits than those that masters are recorded with: a note, not a warning.
    'over-master': outcome<LimitValues>(
      ({ bits, limit }) =>
        `${bitsLabel(bits)} is set; the master was recorded at ${bitsLabel(limit)}. The clip is not better ` +
        'than the master, but a little more room keeps the encoder from making it worse.',
      ({ bits, limit }) => `${bitsLabel(bits)}, master ${bitsLabel(limit)}`,
    ),
    within: outcome<Bits>(
      ({ bits }) => `${bitsLabel(bits)}.`,
      ({ bits }) => bitsLabel(bits),
    ),
  },
  check({ sources, making: { picture }, target }) {
    if (!picture) return { severity: 'pass', code: 'none', values: {} };
    const { bits } = picture;
    const { mostBits } = target.placement.video;
    if (mostBits !== null && judgeBitrate(bits, target.placement)) {
      const fix = { fix: 'set-bits', values: { bits: mostBits } } as const;
      return { severity: 'stop', code: 'over', values: { bits, limit: mostBits }, fix };
    }
    const recorded = Math.max(...sources.map((source) => source.video.bits));
    if (recorded > 0 && bits > recorded) {
      return { severity: 'note', code: 'over-master', values: { bits, limit: recorded } };
    }
    return { severity: 'pass', code: 'within', values: { bits } };
  },
});
