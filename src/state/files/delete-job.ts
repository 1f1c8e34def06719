import { deleteStored, deleteAllStored } from '@media/store/storage';
import { endFollowing, forgetEvidence } from '../framing';
import { cancelExports, forgetRateTrials } from '../export';
import { removeJob, useJobs } from '../job';
import { forgetPass, forgetSpeech } from '../master';
import { forgetStills } from '../picture';

/** Deletes a job with its exports, and its masters' bytes unless another job uses them. */
export async function deleteWholeJob(id: string): Promise<void> {
  const listed = useJobs.getState().listed[id];
  if (!listed) return;
  await endFollowing(id);
  await cancelExports(
    id,
    listed.exports.map((record) => record.id),
  );
  await forgetRateTrials(id);
  await removeJob(id);
  for (const { fingerprint } of listed.head.masters)
    if (!isUsed(fingerprint)) await forgetMaster(fingerprint);
}

/** Lets the bytes of a job's master go, and keeps the work: the same file is asked for when it is wanted again. */
export async function dropMaster(id: string, fingerprint: string): Promise<void> {
  await endFollowing(id);
  if (!isUsed(fingerprint, id)) await forgetMaster(fingerprint);
}

/** Tells whether any job, or any but one, was made from a file. */
export function isUsed(fingerprint: string, but?: string): boolean {
  return Object.values(useJobs.getState().listed).some(
    ({ head }) => head.id !== but && head.masters.some((master) => master.fingerprint === fingerprint),
  );
}

/** Deletes a master's bytes and all that was made of them to look at. */
export async function forgetMaster(fingerprint: string): Promise<void> {
  const ended = Promise.all([forgetPass(fingerprint), forgetStills(fingerprint), forgetSpeech(fingerprint)]);
  await deleteBytes(fingerprint);
  // What was being made of it may have been written meanwhile.
  await ended;
  await deleteBytes(fingerprint);
  forgetEvidence(fingerprint);
}

async function deleteBytes(fingerprint: string): Promise<void> {
  await deleteStored('masters', fingerprint);
  await deleteAllStored('stills', fingerprint);
  await deleteAllStored('passes', fingerprint);
}
