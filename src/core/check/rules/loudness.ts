import { clipLoudness } from '../clip-loudness';
import { exportRule, outcome } from '../rule';

/** LUFS and LU. */
interface Loudness {
  measured: number;
  target: number;
  within: number;
}
const figures = ({ measured, target, within }: Loudness): string =>
  `${measured.toFixed(1)} LUFS, asked ${target} ± ${within}`;

/** The clip's loudness (EBU R 128) against what the outlet brings every clip to. */
export const loudnessRule = exportRule({
  name: 'Loudness',
  reads: ['cut', 'sources', 'looks', 'target'],
  outlet: true,
  outcomes: {
    unknown: outcome<object>(
      () => 'Not known yet: the master is still being analysed.',
      () => 'not known yet',
    ),
    none: outcome<object>(
      () => 'There is nothing to judge.',
      () => 'no target or no sound',
    ),
    loud: outcome<Loudness>(
      ({ measured, target }, { label }) =>
        `${measured.toFixed(1)} LUFS: ${label} turns it down to ${target} LUFS.`,
      figures,
    ),
    quiet: outcome<Loudness>(
      ({ measured, target }, { label }) =>
        `${measured.toFixed(1)} LUFS: quieter than the ${target} LUFS that clips on ${label} have.`,
      figures,
    ),
    within: outcome<Loudness>(
      ({ measured, target }) => `${measured.toFixed(1)} LUFS, near ${target}.`,
      figures,
    ),
  },
  check({ cut, sources, looks, target }) {
    const { loudness } = target.placement.audio;
    if (!loudness || sources.every(({ audio }) => audio === null))
      return { severity: 'pass', code: 'none', values: {} };
    if (looks.some(({ pass }) => pass === null)) return { severity: 'unknown', code: 'unknown', values: {} };
    const measured = clipLoudness(cut, looks);
    if (measured === null) return { severity: 'pass', code: 'none', values: {} };
    const values = { measured, ...loudness };
    if (measured > loudness.target + loudness.within) return { severity: 'note', code: 'loud', values };
    if (measured < loudness.target - loudness.within) return { severity: 'note', code: 'quiet', values };
    return { severity: 'pass', code: 'within', values };
  },
});
