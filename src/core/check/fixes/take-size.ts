import type { Fix } from '../fix';

/** Gives the canvas the size that its placement asks for. */
export const takeSize: Fix<{
  /** The placement's key. */
  placement: string;
}> = {
  label: () => 'Take the size it asks for',
  command: ({ placement }) => ({ type: 'choose-placement', placement }),
};
