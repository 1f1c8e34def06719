import { sweepParts } from '@media/store/storage';
import { openJobs } from './jobs';
import { presets } from './presets';
import { findInterrupted } from './records';
import { openSheets } from './sheets';
import { textStyles } from './text-styles';
import { openTheme } from './theme';

/** What happens once when the app opens: stored jobs are read, and what broken-off work left is deleted. */
export async function openApp(): Promise<void> {
  await openTheme();
  await openSheets();
  await openJobs();
  await findInterrupted();
  await presets.open();
  await textStyles.open();
  // Asked for once, so that the browser does not evict masters when room gets short.
  await navigator.storage.persist().catch(() => false);
  await sweepParts();
}
