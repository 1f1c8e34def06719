import { type ExportRecord, isOpen, type PostRecord } from '@core/job/records';
import { afterRecord, type RecordChange } from './listed';
import { useJobs } from './jobs';
import { dropRecord, loadExport, putRecord } from './store/job-store';
import { keepLock } from './store/locks';
import { tellTabs } from './store/tabs';

/** Exports and posts belong to who makes them: they are stored beside their job, whoever works on that. */
async function change(job: string, made: RecordChange): Promise<void> {
  // The job may have been deleted meanwhile.
  if (!useJobs.getState().listed[job]) return;
  useJobs.setState((state) => afterRecord(state, job, made));
  const { kind, id, record } = made;
  await (record ? putRecord(job, kind, record) : dropRecord(job, kind, id));
  tellTabs({ type: 'record', id: job, made });
}

/** Adds an export's record, or replaces the one with its id. */
export const putExport = (job: string, record: ExportRecord): Promise<void> =>
  change(job, { kind: 'export', id: record.id, record });

export const dropExport = (job: string, id: string): Promise<void> =>
  change(job, { kind: 'export', id, record: null });

export const addPost = (job: string, record: PostRecord): Promise<void> =>
  change(job, { kind: 'post', id: record.id, record });

const lockOf = (id: string): string => `gusset/export/${id}`;

/** Holds exports as this tab's own while they are made. @returns what lets them go. */
export function holdExports(ids: readonly string[]): () => void {
  const locks = ids.map((id) => keepLock(lockOf(id), 'steal'));
  return () => locks.forEach((lock) => void lock.then((kept) => kept?.release()));
}

/** Finds exports that no tab makes any more: their page was closed, or ended. */
export async function findInterrupted(): Promise<void> {
  for (const { head, exports } of Object.values(useJobs.getState().listed)) {
    for (const { id } of exports.filter(isOpen)) {
      const lock = await keepLock(lockOf(id), 'now');
      if (!lock) continue;
      try {
        // It may have ended since it was read: what is stored now counts.
        const stored = await loadExport(head.id, id);
        if (stored && isOpen(stored)) await putExport(head.id, { ...stored, state: 'interrupted' });
        else useJobs.setState((state) => afterRecord(state, head.id, { kind: 'export', id, record: stored }));
      } finally {
        lock.release();
      }
    }
  }
}
