/** Public face of whole jobs as files: bring in, save and delete them. */
export {
  addMasterFile,
  bringBack,
  cancelBringIn,
  DEMO_JOB,
  demoAddress,
  dismissBringIn,
  loadDemo,
  missingMaster,
  openDemo,
  useBringIn,
} from './bring-in';
export { deleteWholeJob, dropMaster } from './delete-job';
export {
  cancelJobFile,
  copyJob,
  dismissJobFile,
  createJobArchive,
  createJobFile,
  takeFile,
  takeJobFile,
  useJobFiles,
} from './job-files';
