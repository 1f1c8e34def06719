import { parseFingerprint } from '@core/master/fingerprint';
import { activeClip, type Job } from '@core/job/job';
import { keep, testJob, testMaster, TEST_MASTER } from '@core/job/test-job';
import { testPass } from '@core/job/test-pass';
import { TroubleError } from '@core/trouble/trouble';
import {
  addClip,
  chooseClip,
  clipSeconds,
  proposeDivisions,
  proposeFits,
  removeClip,
  renameClip,
  splitIntoParts,
} from '../cut';
import { addJob, addMaster, dispatch, NO_JOBS, undo, useJobs } from '../job';
import { storage } from '../store';
import { ensurePasses, runPassAgain, stopPass, usePasses } from './passes';

const mockMedia = {
  pass: jest.fn(),
  stored: null as string | null,
  proxies: [] as string[],
  deleted: [] as string[],
};
jest.mock('@media/worker/tasks', () => ({
  passOverMaster: (...args: unknown[]) => mockMedia.pass(...args) as unknown,
}));
jest.mock('@media/store/storage', () => ({
  storedFile: () =>
    Promise.resolve(mockMedia.stored === null ? null : { text: () => Promise.resolve(mockMedia.stored) }),
  deleteAllStored: (_folder: string, beginning: string) =>
    Promise.resolve(void mockMedia.deleted.push(beginning)),
}));
jest.mock('../player', () => ({
  player: { findProxy: (fingerprint: string) => mockMedia.proxies.push(fingerprint), showFrame: jest.fn() },
}));

const { fingerprint } = testMaster();
const cut = { kind: 'cut' as const, confidence: 1, frames: 0 };
const found = testPass({
  fingerprint,
  shots: [
    { frame: 0, start: null, live: null },
    { frame: 240, start: cut, live: null },
    { frame: 600, start: cut, live: null },
  ],
  motion: Array.from({ length: 42 }, (_, second) => (second >= 10 && second < 25 ? 9 : 1)),
  sound: {
    integrated: -20,
    loudest: -15,
    truePeak: -3,
    samplePeak: -4,
    shortTerm: [],
    pauses: [{ from: 12, to: 13 }],
  },
});
const settled = () => new Promise((resolve) => setTimeout(resolve, 5));
const job = (): Job => useJobs.getState().files['job-1']!.job;
const state = () => usePasses.getState()[fingerprint];

beforeEach(async () => {
  await storage.clear();
  useJobs.setState({ ...NO_JOBS, loaded: true });
  usePasses.setState({}, true);
  mockMedia.pass.mockReset().mockResolvedValue(found);
  mockMedia.stored = null;
  mockMedia.proxies = [];
  mockMedia.deleted = [];
  addJob(testJob());
});

describe('the pass over a master', () => {
  it('runs once, gives the job its shots as a step that can be undone, and the player its proxy', async () => {
    ensurePasses(job());
    ensurePasses(job());
    await settled();
    expect(mockMedia.pass).toHaveBeenCalledTimes(1);
    expect(job().edit.shots.map((shot) => shot.in)).toEqual([0, 240, 600]);
    expect(mockMedia.proxies).toEqual([fingerprint]);
    undo('job-1');
    ensurePasses(job());
    await settled();
    expect(job().edit.shots).toEqual([]);
  });

  it('of an earlier visit is read, not run again; one that went bad is made anew', async () => {
    mockMedia.stored = JSON.stringify(found);
    ensurePasses(job());
    await settled();
    expect(mockMedia.pass).not.toHaveBeenCalled();
    expect(state()).toMatchObject({ state: 'done', pass: { shots: found.shots } });
    mockMedia.stored = '{"half":';
    usePasses.setState({}, true);
    ensurePasses(job());
    await settled();
    expect(mockMedia.pass).toHaveBeenCalledTimes(1);
  });

  it('is made again for a job that takes another sound track of the same file', async () => {
    mockMedia.stored = JSON.stringify({ ...found, soundTrack: 1 });
    mockMedia.pass.mockResolvedValue({ ...found, soundTrack: 0 });
    ensurePasses(job());
    await settled();
    expect(mockMedia.pass).toHaveBeenCalledTimes(1);
    expect(state()).toMatchObject({ state: 'done', pass: { soundTrack: 0 } });
    const [master] = job().masters;
    ensurePasses({ ...job(), masters: [{ ...master!, soundTrack: 1 }] });
    await settled();
    expect(state()).toMatchObject({ state: 'done', pass: { soundTrack: 1 } });
  });

  it('tells time left, can be stopped, and run again', async () => {
    mockMedia.pass.mockImplementationOnce(
      (_request: unknown, { signal, onProgress }: { signal: AbortSignal; onProgress: (p: object) => void }) =>
        new Promise((_, reject) => {
          onProgress({ done: 100, total: 984 });
          signal.addEventListener('abort', () => reject(new TroubleError('cancelled')));
        }),
    );
    ensurePasses(job());
    await settled();
    expect(state()).toMatchObject({ state: 'running', done: 100, left: expect.any(Number) });
    stopPass(fingerprint);
    await settled();
    expect(state()).toEqual({ state: 'stopped' });
    runPassAgain(testMaster());
    await settled();
    expect(state()?.state).toBe('done');
  });

  it('of a second master gives that one its shots too, whatever was taken before', async () => {
    const second = testMaster({ id: 'b'.repeat(12), fingerprint: parseFingerprint('b'.repeat(64)) });
    mockMedia.pass.mockImplementation(({ source }: { source: { fingerprint: string } }) =>
      Promise.resolve({ ...found, fingerprint: source.fingerprint }),
    );
    ensurePasses(job());
    await settled();
    addMaster('job-1', second);
    ensurePasses(job());
    await settled();
    const of = (id: string) =>
      job()
        .edit.shots.filter((shot) => shot.master === id)
        .map((shot) => shot.in);
    expect(of(TEST_MASTER)).toEqual([0, 240, 600]);
    expect(of(second.id)).toEqual([0, 240, 600]);
  });

  it('that fails says why', async () => {
    mockMedia.pass.mockRejectedValue(new Error('a frame is broken'));
    ensurePasses(job());
    await settled();
    expect(state()).toMatchObject({
      state: 'failed',
      trouble: { code: 'damaged', values: { file: 'edit.mp4' } },
    });
    expect(mockMedia.deleted).toEqual([fingerprint]);
  });
});

describe('clips', () => {
  const clips = () =>
    job().edit.clips.map(({ id, part }) => `${id}${part ? ` ${part.number}/${part.of}` : ''}`);

  it('are added, named, chosen without a step, and removed down to one', () => {
    addClip(job());
    expect(clips()).toEqual(['clip-1', 'clip-2']);
    expect(job().edit.clip).toBe('clip-2');
    renameClip(job(), 'clip-2', 'Teaser');
    dispatch('job-1', keep(0, 48));
    const steps = useJobs.getState().files['job-1']!.history.past.length;
    chooseClip(job(), 'clip-1');
    expect(useJobs.getState().files['job-1']!.history.past).toHaveLength(steps);
    expect(activeClip(job().edit).cut[0]?.out).toBe(984);
    removeClip(job(), 'clip-2');
    removeClip(job(), 'clip-1');
    expect(clips()).toEqual(['clip-1']);
  });

  it('do not take the id of a removed one whose export is still there', () => {
    const exports = [{ clip: 'clip-2' }] as unknown as Job['exports'];
    addClip({ ...job(), exports });
    expect(clips()).toEqual(['clip-1', 'clip-3']);
  });

  it('come from a long one in numbered parts, at its shots', async () => {
    ensurePasses(job());
    await settled();
    expect(proposeDivisions(job()).map(({ frame, kind }) => `${kind} ${frame}`)).toEqual([
      'shot 240',
      'pause 299',
      'shot 600',
      'shot 984',
    ]);
    expect(splitIntoParts(job(), 60, 0)).toBe(1);
    expect(splitIntoParts(job(), 26, 0)).toBe(2);
    expect(clips()).toEqual(['clip-1', 'clip-2 1/2', 'clip-3 2/2']);
    const parts = job().edit.clips.slice(1);
    expect(parts.map((clip) => clip.cut)).toEqual([
      [{ master: TEST_MASTER, in: 0, out: 600 }],
      [{ master: TEST_MASTER, in: 600, out: 984 }],
    ]);
    expect(parts[1]?.words.title).toBe('Edit, 2 of 2');
    for (const clip of parts) expect(clipSeconds(job(), clip)).toBeLessThanOrEqual(26);
  });

  it('keep to the limit when the canvas runs at another rate than the master', () => {
    dispatch('job-1', { type: 'set-rate', rate: { num: 12, den: 1 } });
    expect(splitIntoParts(job(), 15, 0)).toBe(3);
    for (const clip of job().edit.clips.slice(1)) expect(clipSeconds(job(), clip)).toBeLessThan(15.1);
  });

  it('fit to a length by what the pass found', async () => {
    ensurePasses(job());
    await settled();
    const [lively] = proposeFits(job(), { seconds: 16, keepFirst: false, keepLast: false });
    expect(lively).toMatchObject({ by: 'movement', cut: [{ in: 240, out: 600 }] });
    expect(proposeFits(job(), { seconds: 60, keepFirst: true, keepLast: true })).toEqual([]);
  });
});
