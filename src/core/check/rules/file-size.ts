import { bytesLabel } from '../../figures/figures';
import { OWN_KEY } from '../../outlets/outlets';
import { AUDIO_BITS, estimatedBytes, LEAST_VIDEO_BITS } from '../../rate/bit-rate';
import { exportSound } from '../../render/export-sound';
import { secondsOf } from '../../time/frame-rate';
import { exportRule, outcome } from '../rule';

interface Estimated {
  bytes: number;
}
interface Capped extends Estimated {
  cap: number;
}
const figures = ({ bytes, cap }: Capped): string => `${bytesLabel(bytes)}, limit ${bytesLabel(cap)}`;

/** The estimated file size against the outlet's cap. */
export const fileSizeRule = exportRule({
  name: 'File size',
  outcomes: {
    free: outcome<Estimated>(
      ({ bytes }) => `About ${bytesLabel(bytes)}. No outlet sets a cap.`,
      ({ bytes }) => bytesLabel(bytes),
    ),
    within: outcome<Capped>(
      ({ bytes, cap }) => `About ${bytesLabel(bytes)}, under the cap of ${bytesLabel(cap)}.`,
      figures,
    ),
    over: outcome<Capped>(
      ({ bytes, cap }, { label }) =>
        `About ${bytesLabel(bytes)}, over ${label}'s cap of ${bytesLabel(cap)}. Lower the bit rate.`,
      figures,
    ),
    'over-long': outcome<Capped>(
      ({ bytes, cap }, { label }) =>
        `About ${bytesLabel(bytes)}, over ${label}'s cap of ${bytesLabel(cap)} ` +
        'at any bit rate worth having. Trim the clip.',
      figures,
    ),
  },
  check({ plan, target, videoBits }) {
    const { maxBytes: cap } = target.placement;
    const sound = exportSound(plan);
    const audioBits = sound ? AUDIO_BITS : 0;
    const bytes = estimatedBytes(plan.frames, plan.rate, videoBits, audioBits, sound?.sampleRate ?? 48000);
    if (target.key === OWN_KEY) return { severity: 'pass', code: 'free', values: { bytes } };
    const values = { bytes, cap };
    if (bytes <= cap) return { severity: 'pass', code: 'within', values };
    const room = (cap * 8 * 0.95) / secondsOf(plan.frames, plan.rate) - audioBits;
    const bits = Math.floor(room / 100_000) * 100_000;
    if (bits < LEAST_VIDEO_BITS) return { severity: 'stop', code: 'over-long', values };
    const fix = { fix: 'set-bits', values: { bits } } as const;
    return { severity: 'stop', code: 'over', values, fix };
  },
});
