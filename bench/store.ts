/** Benchmark of the job store, in the harness page: what a command costs the main thread, and what it writes. */
import { computeMedian } from '../src/core/figures/median';
import { addJob, dispatch, useJobs } from '../src/state/job/jobs';
import { storage } from '../src/state/store/storage';
import { bigJob, commandFor } from '../tests/big-job';

/** Commands until the history is full, and those that are measured then. */
const WARM = 260;
const MEASURED = 100;

/** Milliseconds, and characters. */
export interface StoreFigures {
  command: number;
  slowest: number;
  whole: number;
  written: number;
  stored: number;
}

const waitForWrites = () => new Promise((resolve) => setTimeout(resolve, 50));

/** Works on a job as large as they come, with a full history. */
export async function measureStore(): Promise<StoreFigures> {
  const job = bigJob();
  addJob(job);
  for (let n = 0; n < WARM; n++) dispatch(job.id, commandFor(n));
  await waitForWrites();
  let written = 0;
  const setMany = storage.setMany;
  storage.setMany = (entries) => {
    const size = Object.values(entries).join('').length;
    // A fold writes the document whole, when there is time for it: that is no command's.
    if (!Object.keys(entries).some((key) => key.endsWith('/document'))) written = Math.max(written, size);
    return setMany(entries);
  };
  const times: number[] = [];
  for (let n = WARM; n < WARM + MEASURED; n++) {
    const start = performance.now();
    dispatch(job.id, commandFor(n));
    times.push(performance.now() - start);
    await waitForWrites();
  }
  storage.setMany = setMany;
  const wholes = Array.from({ length: 15 }, () => {
    const start = performance.now();
    localStorage.setItem('whole', JSON.stringify(useJobs.getState().files[job.id]));
    return performance.now() - start;
  });
  localStorage.removeItem('whole');
  const texts = await storage.getMany(await storage.getAllKeys());
  return {
    command: computeMedian(times),
    slowest: Math.max(...times),
    whole: computeMedian(wholes),
    written,
    stored: Object.values(texts).join('').length,
  };
}
