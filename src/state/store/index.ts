/** Public face of what is stored: read, write, lock and share it between tabs. */
export {
  appendEntry,
  type AsideJob,
  createJob,
  deleteJob,
  dropRecord,
  compactJob,
  listJobs,
  loadExport,
  loadJob,
  putRecord,
  StaleWrite,
  storedRevision,
} from './job-store';
export { JobWriter } from './job-writer';
export { runAlone, keepLock } from './locks';
export { sharedSetting, useSettingTroubles } from './shared-setting';
export { dropSetting, loadSetting, saveSetting, storage } from './storage';
export {
  listenToTabs,
  leaveWork,
  type TabMessage,
  takeWork,
  tellTabs,
  keepWorkOpen,
  type WorkListener,
} from './tabs';
export { takeOver } from './take-over';
