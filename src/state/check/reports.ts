import {
  type JudgedJob,
  reportCsv,
  reportJson,
  type ReportRow,
  reportRows,
} from '@core/interchange/check-report';
import { jobFileStem } from '@core/interchange/job-file';
import { pictureKey, reportPage } from '@core/interchange/report-page';
import { clipName } from '@core/job/clip';
import { type Job, findSource } from '@core/job/job';
import { judgeCurrent } from './checks';
import { sheetsNow } from '../job';
import { renderStill } from '../picture';

export type ReportKind = 'csv' | 'json' | 'html';

const TYPES: Record<ReportKind, string> = {
  csv: 'text/csv',
  json: 'application/json',
  html: 'text/html',
};
/** Rows of a clip's picture on the page. */
const PICTURE = 240;

/** A report of what is found of one job now. */
export const jobReport = async (job: Job, kind: ReportKind): Promise<File> =>
  createReport(await judgeCurrent(job), kind, jobFileStem(job));

/** A report of every job of this browser. */
export const allReport = async (kind: ReportKind): Promise<File> =>
  createReport(await judgeCurrent(null), kind, 'all-jobs');

async function createReport(jobs: readonly JudgedJob[], kind: ReportKind, stem: string): Promise<File> {
  const rows = reportRows(jobs, sheetsNow());
  return new File([await writeReport(rows, jobs, kind)], `${stem}.check.${kind}`, { type: TYPES[kind] });
}

async function writeReport(
  rows: readonly ReportRow[],
  jobs: readonly JudgedJob[],
  kind: ReportKind,
): Promise<string> {
  const now = new Date();
  if (kind === 'csv') return reportCsv(rows);
  if (kind === 'json') return reportJson(rows, now.toISOString());
  return reportPage(rows, await drawPictures(jobs), now.toLocaleString('en-GB'));
}

/** The first frame of each clip; one that cannot be read is left out. */
async function drawPictures(jobs: readonly JudgedJob[]): Promise<Record<string, string>> {
  const found: Record<string, string> = {};
  for (const { title, work } of jobs) {
    for (const clip of work.edit.clips) {
      const [range] = clip.cut;
      const still = range && (await renderStill(findSource(work, range.master), range.in, PICTURE));
      if (still) found[pictureKey(title, clipName(clip))] = await dataAddress(still);
    }
  }
  return found;
}

function dataAddress(blob: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(reader.error ?? new Error('the picture could not be read'));
    reader.readAsDataURL(blob);
  });
}
