import { DEFAULT_LIMIT_VALUES } from './limits/limits';
import type { Placement } from './placement';

/** A placement that asks for as little as one can: what others begin with. */
export const PLAIN_PLACEMENT: Placement = {
  id: 'clip',
  name: 'Clip',
  ...DEFAULT_LIMIT_VALUES,
  muted: false,
  zones: { phone: [], tablet: [], desk: [] },
  ladder: [],
};
