import { activeClip, type Job } from '@core/job/job';
import { testJob } from '@core/job/test-job';
import { testPass } from '@core/job/test-pass';
import { SHIPPED_SHEETS } from '@core/outlets/shipped';
import { trialKey } from '@core/trial/rate-trial';
import { TroubleError } from '@core/trouble/trouble';
import type { TaskCallbacks } from '@media/worker/run-task';
import type { Progress } from '@media/worker/worker-protocol';
import { createCurrentAdvisor, trialName, useRateTrials } from './found-trials';
import { usePasses } from '../master';
import {
  forgetRateTrials,
  openRateTrials,
  startRateTrial,
  stopRateTrial,
  worstPictures,
} from './rate-trials';

const mockFiles = new Map<string, Blob>();
let mockRoom = Infinity;
jest.mock('@media/store/storage', () => ({
  storedNames: () => Promise.resolve([...mockFiles.keys()]),
  storedFile: (_folder: string, name: string) => Promise.resolve(mockFiles.get(name) ?? null),
  writeSmall(_folder: string, name: string, blob: Blob) {
    if (mockFiles.size >= mockRoom) return Promise.reject(new Error('no room'));
    mockFiles.set(name, blob);
    return Promise.resolve();
  },
  deleteAllStored(_folder: string, start: string) {
    for (const name of [...mockFiles.keys()]) if (name.startsWith(start)) mockFiles.delete(name);
    return Promise.resolve();
  },
  deleteStored: () => Promise.resolve(),
}));

/** A trial that ends when it is told to. */
const mockCancelled = () => new TroubleError('cancelled');
let mockEnd: { found(): void; fail(error: Error): void } | null = null;
jest.mock('@media/worker/tasks', () => ({
  tryExportRates: (_request: unknown, { onProgress, signal }: TaskCallbacks<Progress>) =>
    new Promise((resolve, reject) => {
      onProgress?.({ stage: 'rate-trial', done: 1, total: 7 });
      signal?.addEventListener('abort', () => reject(mockCancelled()));
      mockEnd = { found: () => resolve(mockTried()), fail: reject };
    }),
}));

const point = (bits: number, ssim: number) => ({
  ...{ bits, came: bits, ssim, psnr: 38, moving: null, banding: 0 },
  worst: { role: 'hardest' as const, frame: 1, ssim },
});
const blob = () => ({ text: () => Promise.resolve('') }) as unknown as Blob;
const mockTried = () => ({
  result: {
    points: [point(3e6, 0.9), point(6e6, 0.95), point(9e6, 0.951)],
    ...{ compressor: 'browser' as const, took: 9 },
  },
  pictures: [1, 2, 3].map(() => ({ planned: blob(), viewed: blob() })),
});

let count = 0;
/** A job of a master that was looked at. */
function lookedJob(): Job {
  const job = { ...testJob({ frames: 1000 }), id: `job-${count++}` };
  const pass = { ...testPass(), fingerprint: job.masters[0]!.fingerprint };
  usePasses.setState({ [pass.fingerprint]: { state: 'done', pass } });
  return job;
}

const runs = () => Object.keys(useRateTrials.getState().running);
const found = () => Object.keys(useRateTrials.getState().found);
const subjectOf = (job: Job) => {
  const clip = activeClip(job.edit);
  return { work: job, clip, canvas: clip.canvases[0]!, target: null as never };
};

beforeEach(() => {
  mockFiles.clear();
  mockRoom = Infinity;
  mockEnd = null;
  useRateTrials.setState({ found: {}, running: {}, troubles: {} });
});

describe('a trial of bit rates', () => {
  it('is kept with its pictures, and advises from then on', async () => {
    const job = lookedJob();
    const going = startRateTrial(job);
    expect(runs()).toEqual([trialName(job)]);
    // Asked for twice, it runs once.
    const again = startRateTrial(job);
    mockEnd?.found();
    await Promise.all([going, again]);
    expect(runs()).toEqual([]);
    expect([...mockFiles.keys()].filter((name) => name.endsWith('.png'))).toHaveLength(6);
    expect(createCurrentAdvisor()(subjectOf(job))).toBeGreaterThan(3e6);
    expect(await worstPictures(trialName(job), 0)).not.toBeNull();
    expect(await worstPictures(trialName(job), 5)).toBeNull();
    expect(useRateTrials.getState().found[trialName(job)]?.key).toBe(trialKey(job, SHIPPED_SHEETS));
  });

  it('that is stopped leaves nothing, and tells of no trouble', async () => {
    const job = lookedJob();
    const going = startRateTrial(job);
    stopRateTrial(trialName(job));
    await going;
    expect([...mockFiles.keys(), ...found(), ...runs()]).toEqual([]);
    expect(useRateTrials.getState().troubles).toEqual({});
  });

  it('that fails says why, and the next one forgets that', async () => {
    const job = lookedJob();
    const going = startRateTrial(job);
    mockEnd?.fail(new TroubleError('encoder-missing', { width: 1, height: 2 }));
    await going;
    expect(useRateTrials.getState().troubles[trialName(job)]?.code).toBe('encoder-missing');
    const next = startRateTrial(job);
    expect(useRateTrials.getState().troubles).toEqual({});
    mockEnd?.found();
    await next;
  });

  it('for which there is no room leaves no part of it, and nothing of the one before', async () => {
    const job = lookedJob();
    const first = startRateTrial(job);
    mockEnd?.found();
    await first;
    mockRoom = 3;
    const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    const second = startRateTrial(job);
    mockEnd?.found();
    await second;
    expect([...mockFiles.keys(), ...found()]).toEqual([]);
    expect(useRateTrials.getState().troubles[trialName(job)]).toBeDefined();
    said.mockRestore();
  });

  it('of a job that is deleted meanwhile, in its last stage too, leaves no orphan', async () => {
    const job = lookedJob();
    void startRateTrial(job);
    await forgetRateTrials(job.id);
    expect([...mockFiles.keys(), ...found(), ...runs()]).toEqual([]);
    // It was just being written down.
    const late = startRateTrial(job);
    mockEnd?.found();
    await Promise.resolve();
    await forgetRateTrials(job.id);
    await late;
    expect([...mockFiles.keys(), ...found(), ...runs()]).toEqual([]);
  });

  it('is there in the next visit; one that went bad is not, and keeps nothing from opening', async () => {
    const job = lookedJob();
    const going = startRateTrial(job);
    mockEnd?.found();
    await going;
    const kept = useRateTrials.getState().found[trialName(job)];
    useRateTrials.setState({ found: {} });
    const textOf = (text: string) => ({ text: () => Promise.resolve(text) }) as unknown as Blob;
    mockFiles.set(`${trialName(job)}.trial.json`, textOf(JSON.stringify(kept)));
    mockFiles.set('bad.trial.json', textOf('{"schemaVersion":1,"po'));
    mockFiles.set('empty.trial.json', textOf(''));
    mockFiles.set('other.trial.json', textOf('{"schemaVersion":2}'));
    await openRateTrials();
    expect(found()).toEqual([trialName(job)]);
  });

  it('does not begin before its master was looked at', async () => {
    const job = lookedJob();
    usePasses.setState({}, true);
    await startRateTrial(job);
    expect(mockEnd).toBeNull();
  });
});
