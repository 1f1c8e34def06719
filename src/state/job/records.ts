import { type ExportRecord, isUnfinished, type PostRecord } from '@core/job/records';
import { updateListEntries, type RecordChange } from '../job-list-entry';
import { useJobs } from './jobs';
import { dropRecord, keepLock, loadExport, putRecord, tellTabs } from '../store';

/** Exports and posts belong to who makes them: they are stored beside their job, whoever works on that. */
async function change(job: string, made: RecordChange): Promise<void> {
  // The job may have been deleted meanwhile.
  if (!useJobs.getState().listed[job]) return;
  useJobs.setState((state) => updateListEntries(state, job, made));
  const { kind, id, record } = made;
  await (record ? putRecord(job, kind, record) : dropRecord(job, kind, id));
  tellTabs({ type: 'record', id: job, made });
}

/** Adds an export's record, or replaces the one with its id. */
export const putExport = (job: string, record: ExportRecord): Promise<void> =>
  change(job, { kind: 'export', id: record.id, record });

export const dropExport = (job: string, id: string): Promise<void> =>
  change(job, { kind: 'export', id, record: null });

/** Adds a post's record, or replaces the one with its id. */
export const putPost = (job: string, record: PostRecord): Promise<void> =>
  change(job, { kind: 'post', id: record.id, record });

export const dropPost = (job: string, id: string): Promise<void> =>
  change(job, { kind: 'post', id, record: null });

const toLockName = (id: string): string => `gusset/export/${id}`;

/** Holds exports as this tab's own while they are made. @returns what lets them go. */
export function holdExports(ids: readonly string[]): () => void {
  const locks = ids.map((id) => keepLock(toLockName(id), 'steal'));
  return () => locks.forEach((lock) => void lock.then((kept) => kept?.release()));
}

/** An export that nobody makes any more; it is held, so that another tab that opens now does not take it up too. */
interface OpenExport {
  jobId: string;
  record: ExportRecord;
  letGo: () => void;
}

/** Exports that were not ended and that no tab makes any more: their page was closed, or ended. */
export async function findOpenExports(): Promise<OpenExport[]> {
  const found: OpenExport[] = [];
  for (const { head, exports } of Object.values(useJobs.getState().listed)) {
    for (const { id } of exports.filter(isUnfinished)) {
      const lock = await keepLock(toLockName(id), 'now');
      if (!lock) continue;
      // It may have ended since it was read: what is stored now counts.
      const stored = await loadExport(head.id, id);
      if (stored && isUnfinished(stored)) {
        found.push({ jobId: head.id, record: stored, letGo: () => lock.release() });
        continue;
      }
      useJobs.setState((state) => updateListEntries(state, head.id, { kind: 'export', id, record: stored }));
      lock.release();
    }
  }
  return found;
}
