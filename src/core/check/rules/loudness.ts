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
  reads: ['cut', 'sources', 'looks', 'making', 'target'],
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
    brought: outcome<Loudness>(({ measured }) => `The export brings the clip to ${measured} LUFS.`, figures),
    within: outcome<Loudness>(
      ({ measured, target }) => `${measured.toFixed(1)} LUFS, near ${target}.`,
      figures,
    ),
  },
  check({ cut, sources, looks, making, target }) {
    const { loudness } = target.placement.audio;
    if (!loudness || sources.every(({ audio }) => audio === null))
      return { severity: 'pass', code: 'none', values: {} };
    const made = making.sound?.loudness ?? null;
    if (made === null && looks.some(({ pass }) => pass === null))
      return { severity: 'unknown', code: 'unknown', values: {} };
    const measured = made ?? clipLoudness(cut, looks, making.sound?.channels ?? 2);
    if (measured === null) return { severity: 'pass', code: 'none', values: {} };
    const values = { measured, ...loudness };
    const fix = { fix: 'set-loudness', values: { target: loudness.target } } as const;
    if (measured > loudness.target + loudness.within) return { severity: 'note', code: 'loud', values, fix };
    if (measured < loudness.target - loudness.within) return { severity: 'note', code: 'quiet', values, fix };
    return { severity: 'pass', code: made === null ? 'within' : 'brought', values };
  },
});
