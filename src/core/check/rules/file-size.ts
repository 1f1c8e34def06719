import { OWN_KEY } from '../../outlets/outlets';
import { AUDIO_BITS, estimatedBytes, LEAST_VIDEO_BITS } from '../../rate/bit-rate';
import { secondsOf } from '../../time/frame-rate';
import { exportSound } from '../../render/export-sound';
import type { Rule } from '../finding';

/** The estimated file size against the outlet's cap. */
export const fileSizeRule: Rule = {
  id: 'file-size',
  check({ plan, target, videoBits }) {
    const { maxBytes } = target.placement;
    const sound = exportSound(plan);
    const audioBits = sound ? AUDIO_BITS : 0;
    const sampleRate = sound?.sampleRate ?? 48000;
    const measured = estimatedBytes(plan.frames, plan.rate, videoBits, audioBits, sampleRate);
    const base = { rule: 'file-size', measured, limit: maxBytes, unit: 'bytes', holds: 'export' } as const;
    if (target.key === OWN_KEY) return { ...base, severity: 'pass', code: 'free', limit: null };
    if (measured <= maxBytes) return { ...base, severity: 'pass', code: 'within' };
    const room = (maxBytes * 8 * 0.95) / secondsOf(plan.frames, plan.rate) - audioBits;
    const bits = Math.floor(room / 100_000) * 100_000;
    if (bits < LEAST_VIDEO_BITS) return { ...base, severity: 'stop', code: 'over-long' };
    const label = `Set ${(bits / 1e6).toFixed(1)} Mb/s`;
    return {
      ...base,
      severity: 'stop',
      code: 'over',
      fix: { label, command: { type: 'set-video-bits', bits } },
    };
  },
};
