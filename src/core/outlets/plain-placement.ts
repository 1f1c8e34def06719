import { PLAIN_LIMITS } from './limits/limits';
import type { Placement } from './placement';

/** A placement that asks for as little as one can: what others begin with. */
export const PLAIN_PLACEMENT: Placement = {
  id: 'clip',
  name: 'Clip',
  ...PLAIN_LIMITS,
  muted: false,
  zones: { phone: [], tablet: [], desk: [] },
  ladder: [],
};
