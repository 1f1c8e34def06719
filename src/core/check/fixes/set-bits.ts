import type { Fix } from '../fix';

/** Sets the export's video bit rate. */
export const setBits: Fix<{
  /** A second. */
  bits: number;
}> = {
  safe: true,
  label: ({ bits }) => `Set ${(bits / 1e6).toFixed(1)} Mb/s`,
  command: ({ bits }) => ({ type: 'set-video-bits', bits }),
};
