import { sweepParts } from '@media/storage';
import { openJobs } from './jobs';

/** What happens once when the app opens: stored jobs are read, and what broken-off work left is deleted. */
export async function openApp(): Promise<void> {
  await openJobs();
  // Asked for once, so that the browser does not evict masters when room gets short.
  await navigator.storage.persist().catch(() => false);
  await sweepParts();
}
