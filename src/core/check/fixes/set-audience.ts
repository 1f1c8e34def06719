import type { Audience } from '../../outlets/audience';
import type { Fix } from '../fix';

/** Chooses who may see the post. */
export const setAudience: Fix<{ audience: Audience }> = {
  safe: false,
  label: ({ audience }) => `Make it ${audience}`,
  command: ({ audience }) => ({ type: 'set-audience', audience }),
};
