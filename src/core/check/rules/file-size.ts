import { judgeFileSize } from '../../outlets/limits/file-size';
import { bytesLabel } from '../../figures/figures';
import { OWN_KEY } from '../../outlets/outlets';
import { MIN_VIDEO_BITRATE } from '../../rate/bit-rate';
import { fileBytes, hasOpenSize } from '../../render/encode-settings';
import { toSeconds } from '../../time/frame-rate';
import { exportRule, outcome } from '../rule';

interface EstimateValues {
  bytes: number;
  /** True when pieces of the clip were encoded to find the size. */
  tried: boolean;
}
interface CapValues extends EstimateValues {
  cap: number;
}
/** How large, and where that comes from. */
const about = ({ bytes, tried }: EstimateValues): string =>
  tried
    ? `About ${bytesLabel(bytes)}, by pieces of the clip that were encoded`
    : `Up to ${bytesLabel(bytes)}, by bit rate and length`;
const figures = ({ bytes, cap }: CapValues): string => `${bytesLabel(bytes)}, limit ${bytesLabel(cap)}`;

/** The estimated file size against the outlet's cap. */
export const fileSizeRule = exportRule({
  name: 'File size',
  reads: ['plan', 'target', 'making', 'triedBits'],
  outcomes: {
    free: outcome<EstimateValues>(
      (v) => `${about(v)}. No outlet sets a cap.`,
      ({ bytes }) => bytesLabel(bytes),
    ),
    unknown: outcome<{ cap: number | null }>(
      ({ cap }) =>
        `At a constant quality the size is known once pieces of the clip were encoded${cap === null ? '' : `; the cap is ${bytesLabel(cap)}`}.`,
      () => 'not known yet',
    ),
    within: outcome<CapValues>((v) => `${about(v)}: under the cap of ${bytesLabel(v.cap)}.`, figures),
    over: outcome<CapValues>(
      (v, { label }) => `${about(v)}: over ${label}'s cap of ${bytesLabel(v.cap)}. Lower the bit rate.`,
      figures,
    ),
    'over-long': outcome<CapValues>(
      (v, { label }) =>
        `${about(v)}: over ${label}'s cap of ${bytesLabel(v.cap)} at any bit rate worth having. Trim the clip.`,
      figures,
    ),
  },
  check({ plan, target, making, triedBits }) {
    const { mostBytes: cap } = target.placement;
    const audioBits = making.sound?.bits ?? 0;
    const bytes = fileBytes(plan, making, triedBits ?? making.picture?.bits ?? 0);
    const tried = triedBits !== null;
    // A constant quality takes what it takes: nothing says how much before pieces were encoded.
    if (!tried && making.picture && hasOpenSize(making.picture))
      return { severity: 'unknown', code: 'unknown', values: { cap: target.key === OWN_KEY ? null : cap } };
    if (target.key === OWN_KEY) return { severity: 'pass', code: 'free', values: { bytes, tried } };
    const values = { bytes, tried, cap };
    if (!judgeFileSize(bytes, target.placement)) return { severity: 'pass', code: 'within', values };
    const room = (cap * 8 * 0.95) / toSeconds(plan.frames, plan.rate) - audioBits;
    const fitting = Math.floor(room / 100_000) * 100_000;
    if (fitting < MIN_VIDEO_BITRATE) return { severity: 'stop', code: 'over-long', values };
    const fix = { fix: 'set-bits', values: { bits: fitting } } as const;
    return { severity: 'stop', code: 'over', values, fix };
  },
});
