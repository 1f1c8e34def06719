import { activeClip, type Job } from '@core/job/job';
import type { ExportRecord } from '@core/job/records';
import { applyCommand } from '@core/job/commands/commands';
import { NO_BORDERS } from '@core/picture/borders';
import { testJob, testMaster } from '@core/job/test-job';
import { testPass } from '@core/job/test-pass';
import { startExport, useExports } from './exports';
import { addJob, NO_JOBS, useJobs } from '../job';
import { usePasses } from '../master';
import { storage } from '../store';
import { mockMedia } from '../test-media';

export const proof = { facts: [], framesSearched: 984, borders: NO_BORDERS, pass: true };

/** A record as an earlier page left it. */
export const exportRecord = (): ExportRecord => ({
  ...{ id: 'x', clip: 'clip-1', canvas: 'canvas-1', dye: 0, placement: null, width: 1080, height: 1920 },
  ...{ fileName: 'x.mp4', format: 'mp4-avc', startedAt: '2026-11-26T10:00:00.000Z', state: 'running' },
  ...{ signature: 'x', videoBits: 1, error: null, bytes: null, tookSeconds: null, proof: null },
});

export const waitForTasks = () => new Promise((resolve) => setTimeout(resolve, 5));
export const readStored = (): Job => useJobs.getState().files['job-1']!.job;
export const begin = (canvases = ['canvas-1']) => startExport(readStored(), canvases);

/** The test job with its tag, so that nothing is kept back. */
export function createReadyJob(): Job {
  const job = testJob();
  const words = { ...activeClip(job.edit).words, tags: ['upright'], forChildren: false };
  return { ...job, edit: applyCommand(job.edit, { type: 'set-words', words }) };
}

/** Sets up a job that is ready to be exported, in a browser that makes every file at once. */
export async function readyToExport(): Promise<void> {
  await storage.clear();
  useJobs.setState({ ...NO_JOBS, loaded: true });
  useExports.setState({ waiting: [] });
  usePasses.setState({ [testMaster().fingerprint]: { state: 'done', pass: testPass() } }, true);
  mockMedia.files.clear();
  mockMedia.deleted = [];
  mockMedia.makeExport.mockReset().mockImplementation(({ outputs }: { outputs: { name: string }[] }) => {
    for (const { name } of outputs) mockMedia.files.set(name, 'x'.repeat(1000));
    return Promise.resolve({ bytes: outputs.map(() => 1000) });
  });
  mockMedia.proveExport.mockReset().mockResolvedValue(proof);
  mockMedia.uploadFile.mockReset().mockResolvedValue('abc');
  addJob(createReadyJob());
}
