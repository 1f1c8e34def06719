import { setInterval } from 'node:timers';
import type { Conversions } from './convert/conversions';
import type { Offers } from './hand-off/offers';
import type { StandIn } from './outlets/stand-in/stand-in';
import type { PostService } from './posting/posting';
import type { RenderService } from './renders/api';
import type { UploadEndpoint } from './uploads/upload-endpoint';

/** Uploads and copies that nobody came back for are deleted after a day, in milliseconds. */
const LIFE = 24 * 3600 * 1000;
/** How long a refused upload may be posted again with other words, in milliseconds. */
const REFUSED_LIFE = 3600 * 1000;
/** How often that is looked for. */
const EVERY = 3600 * 1000;

/** Records and folders that are swept. */
export interface SweepTargets {
  outlets: readonly StandIn[];
  conversions: Conversions;
  renders: RenderService;
  posting: PostService;
  offers: Offers;
  chat: UploadEndpoint;
}

/** Deletes what broken-off work left: old uploads, copies that were not fetched, files that no record knows. */
export async function sweep(
  { outlets, conversions, renders, posting, offers, chat }: SweepTargets,
  now = Date.now(),
): Promise<void> {
  for (const { posts, door } of outlets) {
    await door.sweep(now - LIFE, (id) => posts.isUnderWay(id));
    posts.forgetRefused(now - REFUSED_LIFE);
    await posts.sweep();
  }
  await conversions.sweep(now - LIFE);
  await renders.renders.sweep(now - LIFE);
  await renders.trials.sweep(now - LIFE);
  await renders.masters.sweep(now - LIFE);
  await posting.sweep(now - LIFE, now);
  await offers.sweep(now - LIFE);
  await chat.sweep(now - LIFE, () => false);
}

/** Sweeps now and by the hour; what fails is told and tried again the next time. @returns what ends it. */
export function keepSwept(swept: SweepTargets): () => void {
  let ended = false;
  // What the server's own end breaks off is nothing to tell.
  const go = () => void sweep(swept).catch((error: unknown) => ended || console.error(error));
  go();
  const clock = setInterval(go, EVERY);
  return () => {
    ended = true;
    clearInterval(clock);
  };
}
