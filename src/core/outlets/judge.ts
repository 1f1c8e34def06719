import { LIMITS, type LimitName } from './limits/limits';
import type { Placement } from './placement';
import type { SentFile, SentPost } from './sent';

/** A limit that was broken, and how. */
export interface OutletRefusal {
  limit: LimitName;
  reason: string;
}

/** Lists why an outlet refuses a post under a placement's rules; empty when it takes it. */
export const refusals = (file: SentFile, post: SentPost, placement: Placement): OutletRefusal[] =>
  LIMITS.flatMap(({ name, refuseFile, refusePost }) => {
    const reason = refuseFile?.(file, placement) ?? refusePost?.(post, placement) ?? null;
    return reason === null ? [] : [{ limit: name, reason }];
  });
