import type { Fix } from '../fix';

/** Has the export bring its sound to what the outlet has. */
export const setLoudness: Fix<{
  /** Target loudness, in LUFS. */
  target: number;
}> = {
  // How loud a clip is may be meant.
  safe: false,
  label: ({ target }) => `Bring it to ${target} LUFS`,
  command: () => ({ type: 'set-loudness', loudness: 'outlet' }),
};
