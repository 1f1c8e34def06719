import type { Job } from '@core/job/job';
import { deleteStored, storedNames } from '@media/storage';
import { cancelExport } from './exports';
import { removeJob, useJobs } from './jobs';

/** Deletes a job with its exports, and its master's bytes and stills unless another job uses them. */
export async function deleteWholeJob(job: Job): Promise<void> {
  for (const record of job.exports) {
    cancelExport(record.id);
    await deleteStored('exports', `${record.id}.mp4`);
  }
  await removeJob(job.id);
  const { fingerprint } = job.master;
  const shared = Object.values(useJobs.getState().files).some(
    (one) => one.job.master.fingerprint === fingerprint,
  );
  if (shared) return;
  await deleteStored('masters', fingerprint);
  for (const name of await storedNames('stills')) {
    if (name.startsWith(fingerprint)) await deleteStored('stills', name);
  }
}
