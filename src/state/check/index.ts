/** Public face of the check: findings to watch, and reports to save. */
export {
  checkAllJobs,
  checkTrouble,
  checkWork,
  safeFixesNow,
  type SheetEffect,
  sheetEffects,
  useChecks,
  findWorstOfJob,
} from './checks';
export { allReport, jobReport, type ReportKind } from './reports';
