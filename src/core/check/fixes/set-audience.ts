import type { Audience } from '../../outlets/audience';
import type { Fix } from '../fix';

/** Chooses who may see the post at one placement: the others keep what suits them. */
export const setAudience: Fix<{ audience: Audience; placement: string }> = {
  safe: false,
  label: ({ audience }) => `Make it ${audience}`,
  command: ({ audience, placement }) => ({ type: 'set-audience', audience, placement }),
};
