import { exportRule, outcome } from '../rule';

/** Sound present over the whole clip, and not silent. */
export const audioRule = exportRule({
  name: 'Sound',
  reads: ['sources', 'looks', 'target'],
  outcomes: {
    missing: outcome<{ chosen: boolean }>(
      ({ chosen }) =>
        chosen
          ? 'You chose to leave the sound out. The clip will be silent.'
          : 'The master has no sound. The clip will be silent.',
      () => 'no sound',
    ),
    partly: outcome<{ silent: number; masters: number }>(
      ({ silent, masters }) =>
        `${silent} of the clip’s ${masters} masters ${silent === 1 ? 'has' : 'have'} no sound. The clip is silent there.`,
      ({ silent, masters }) => `${silent} of ${masters} masters`,
    ),
    silent: outcome<object>(
      () => 'The master has a sound track, but nothing is heard on it. Take another track, or leave it out.',
      () => 'silence',
    ),
    present: outcome<{ muted: boolean }>(
      ({ muted }, { label }) =>
        muted
          ? `The clip has sound; ${label} plays it muted until a viewer asks for it.`
          : 'The clip has sound.',
      () => 'present',
    ),
  },
  check({ sources, looks, target }) {
    const { audio, muted } = target.placement;
    const sounds = sources.flatMap((source) => source.audio ?? []);
    if (sounds.length === 0) {
      const chosen = sources.some(({ audioTracks }) => audioTracks.length > 0);
      return { severity: audio.required ? 'stop' : 'warn', code: 'missing', values: { chosen } };
    }
    const silent = sources.length - sounds.length;
    if (silent > 0) return { severity: 'note', code: 'partly', values: { silent, masters: sources.length } };
    const heard = looks.map(({ pass }) => pass?.sound);
    // Below the absolute gate of EBU R 128 (−70 LUFS) all over: nothing was measured.
    if (heard.every((sound) => sound !== undefined && sound !== null && sound.integrated === null))
      return { severity: 'warn', code: 'silent', values: {} };
    return { severity: 'pass', code: 'present', values: { muted } };
  },
});
