/** Public face of jobs: open, change and watch them, with the rule sheets and presets that they use. */
export {
  addCopy,
  addJob,
  addMaster,
  dismissRefusal,
  dispatch,
  canChangeJob,
  leaveJob,
  markJudged,
  markOffered,
  NO_JOBS,
  openJob,
  openJobs,
  redo,
  removeJob,
  renameJob,
  setCanvas,
  setClip,
  takeOverJob,
  undo,
  useJobs,
} from './jobs';
export { exportPresets, presets, savePreset } from './presets';
export { dropExport, dropPost, findOpenExports, holdExports, putExport, putPost } from './records';
export {
  bringSheetBack,
  forgetLastChange,
  isShipped,
  keepSheet,
  openSheets,
  listOwnRemovedSheets,
  removeSheet,
  sheetFile,
  readSheetOfFile,
  sheetsNow,
  sheetVersions,
  useSheets,
} from './sheets';
