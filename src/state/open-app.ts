import { sweepParts } from '@media/store/storage';
import { takeUpExports } from './export-queue';
import { doneNotice } from './done-notice';
import { fileNames } from './file-names';
import { openJobs } from './jobs';
import { exportPresets, presets } from './presets';
import { keepOffline } from './offline';
import { openRateTrials } from './rate-trials';
import { openSheets } from './sheets';
import { gap } from './gap';
import { textStyles } from './text-styles';
import { tagSets, templates } from './word-presets';
import { theme } from './theme';

/** What happens once when the app opens: stored jobs are read, and what broken-off work left is deleted. */
export async function openApp(): Promise<void> {
  await theme.open();
  await fileNames.open();
  await doneNotice.open();
  await openSheets();
  await openJobs();
  await presets.open();
  await exportPresets.open();
  await textStyles.open();
  await templates.open();
  await tagSets.open();
  await gap.open();
  await openRateTrials();
  // Asked for once, so that the browser does not evict masters when room gets short.
  await navigator.storage.persist().catch(() => false);
  await sweepParts();
  await takeUpExports();
  await keepOffline();
}
