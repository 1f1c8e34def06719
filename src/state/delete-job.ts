import type { Job } from '@core/job/job';
import { deleteStored, storedNames } from '@media/store/storage';
import { cancelExport } from './exports';
import { removeJob, useJobs } from './jobs';
import { forgetPass } from './passes';

/** Deletes a job with its exports, and its masters' bytes unless another job uses them. */
export async function deleteWholeJob(job: Job): Promise<void> {
  for (const record of job.exports) {
    cancelExport(record.id);
    await deleteStored('exports', `${record.id}.mp4`);
  }
  await removeJob(job.id);
  const kept = new Set(
    Object.values(useJobs.getState().files).flatMap((one) => one.job.masters.map((it) => it.fingerprint)),
  );
  for (const { fingerprint } of job.masters) if (!kept.has(fingerprint)) await forgetMaster(fingerprint);
}

/** Deletes a master's bytes and all that was made of them to look at. */
async function forgetMaster(fingerprint: string): Promise<void> {
  forgetPass(fingerprint);
  await deleteStored('masters', fingerprint);
  for (const folder of ['stills', 'passes'] as const) {
    for (const name of await storedNames(folder)) {
      if (name.startsWith(fingerprint)) await deleteStored(folder, name);
    }
  }
}
