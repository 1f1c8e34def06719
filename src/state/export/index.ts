/** Public face of exports: start, pause, resume, cancel and watch them. */
export { useAbilities, useRenderServer } from './abilities';
export { doneNotice, noticeState, setDoneNotice } from './done-notice';
export { hasOrder } from './export-orders';
export {
  cancelExport,
  cancelExports,
  moveExport,
  pauseExport,
  toQueuePlace,
  resumeExport,
  takeUpExports,
} from './export-queue';
export { type ExportProgress, isExporting, useExportQueue } from './export-running';
export {
  deleteExport,
  exportNow,
  loadExportedFile,
  startExport,
  stopWaiting,
  useExports,
  findWaiting,
} from './exports';
export { allTrials, trialName, useRateTrials } from './found-trials';
export {
  forgetRateTrials,
  openRateTrials,
  startRateTrial,
  stopRateTrial,
  worstPictures,
} from './rate-trials';
export { forgetMasters } from './render-sources';
export { dismissReturned, lookAtFile, sendThroughChat, useReturned } from './returned';
export { canChooseFolder, saveAsArchive, saveIntoFolder, stopSaving, useSaveAll } from './save-all';
export { listTriedSizes, useSizeTrial, useSizeTrials } from './size-trials';
