import { setInterval } from 'node:timers';
import type { Conversions } from './convert/conversions';
import type { StandIn } from './outlets/stand-in';

/** Uploads and copies that nobody came back for are deleted after a day, in milliseconds. */
const LIFE = 24 * 3600 * 1000;
/** What an outlet refused may be posted again with other words for an hour. */
const REFUSED_LIFE = 3600 * 1000;
/** How often that is looked for. */
const EVERY = 3600 * 1000;

/** What is swept. */
export interface Swept {
  outlets: readonly StandIn[];
  conversions: Conversions;
}

/** Deletes what broken-off work left: old uploads, copies that were not fetched, files that no record knows. */
export async function sweep({ outlets, conversions }: Swept, now = Date.now()): Promise<void> {
  for (const { posts, door } of outlets) {
    await door.sweep(now - LIFE, (id) => posts.isUnderWay(id));
    posts.forgetRefused(now - REFUSED_LIFE);
    await posts.sweep();
  }
  await conversions.sweep(now - LIFE);
}

/** Sweeps now and by the hour; what fails is told and tried again the next time. @returns what ends it. */
export function keepSwept(swept: Swept): () => void {
  const go = () => void sweep(swept).catch((error: unknown) => console.error(error));
  go();
  const clock = setInterval(go, EVERY);
  return () => clearInterval(clock);
}
