import { sweepParts } from '@media/store/storage';
import { takeUpExports, doneNotice, openRateTrials } from '../export';
import { fileNames } from '../file-names';
import { exportPresets, openJobs, openSheets, presets } from '../job';
import { keepOffline } from './offline';
import { gap } from '../posting';
import { tagSets, templates, textStyles } from '../words';
import { theme } from './theme';

/** Runs once when the app opens: reads stored jobs, and deletes what broken-off work left. */
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
