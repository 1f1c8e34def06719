import { activeCanvas } from '@core/job/clip';
import { activeClip, mainMaster } from '@core/job/job';
import { testMaster, testRange } from '@core/job/test-job';
import { TroubleError } from '@core/trouble/trouble';
import { bringBack, bringIn, cancelBringIn, openDemo, useBringIn } from './bring-in';
import { NO_JOBS, useJobs } from '../job';
import { storage } from '../store';

const mockMedia = { bringInFile: jest.fn(), there: true, deleted: [] as string[] };
jest.mock('@media/worker/tasks', () => ({
  bringInFile: (...args: unknown[]) => mockMedia.bringInFile(...args) as unknown,
}));
jest.mock('@media/store/storage', () => ({
  storedFile: () => Promise.resolve(mockMedia.there ? {} : null),
  deleteStored: (_folder: string, name: string) => Promise.resolve(void mockMedia.deleted.push(name)),
  deleteAllStored: () => Promise.resolve(),
}));

const file = (name: string) => new File(['x'], name);
const jobOf = (id: string | null) => useJobs.getState().files[id ?? '']?.job;
const demo = {
  title: 'A demo',
  file: 'demo.mp4',
  poster: 'demo.jpg',
  shots: [
    { id: 'a', in: 0, out: 500 },
    { id: 'b', in: 500, out: 984 },
  ],
  framings: [],
  words: { title: 'Demo words', description: '', tags: ['one'] },
};

beforeEach(async () => {
  await storage.clear();
  useJobs.setState({ ...NO_JOBS, loaded: true });
  useBringIn.setState({ fileName: null, progress: null, trouble: null, twin: null, demo: null });
  mockMedia.bringInFile.mockReset().mockResolvedValue({ master: testMaster(), fresh: true });
  mockMedia.there = true;
});
afterEach(() => jest.restoreAllMocks());

describe('bringing in', () => {
  it('makes a job named after the file, filled into the first placement', async () => {
    const job = jobOf(await bringIn(file('my_first-edit.final.mov')));
    expect(job).toMatchObject({
      title: 'my first edit.final',
      edit: { clips: [{ cut: [testRange(0, 984)], audience: 'private' }] },
    });
    expect(job && activeCanvas(activeClip(job.edit)).placement).toBe('verrow/short');
    expect(useBringIn.getState().fileName).toBeNull();
  });

  it('tells of the job that was made from the same file', async () => {
    const first = await bringIn(file('edit.mp4'));
    const second = await bringIn(file('edit.mp4'));
    expect(useBringIn.getState().twin).toEqual({ title: 'edit', id: first });
    expect(jobOf(second)?.title).toBe('edit (again)');
  });

  it('keeps the trouble of a refused file, and none of a cancelled one', async () => {
    mockMedia.bringInFile.mockRejectedValueOnce(new TroubleError('no-video', { file: 'a.mp4' }));
    expect(await bringIn(file('a.mp4'))).toBeNull();
    expect(useBringIn.getState().trouble?.code).toBe('no-video');
    mockMedia.bringInFile.mockRejectedValueOnce(new TroubleError('cancelled'));
    expect(await bringIn(file('b.mp4'))).toBeNull();
    expect(useBringIn.getState().trouble).toBeNull();
    expect(useJobs.getState().files).toEqual({});
  });

  it('takes bytes in once more that another tab took back meanwhile', async () => {
    mockMedia.there = false;
    mockMedia.bringInFile.mockResolvedValueOnce({ master: testMaster(), fresh: false });
    expect(jobOf(await bringIn(file('edit.mp4')))?.title).toBe('edit');
    expect(mockMedia.bringInFile).toHaveBeenCalledTimes(2);
  });

  it('that is cancelled in its last moment makes no job and keeps no bytes', async () => {
    mockMedia.deleted = [];
    mockMedia.bringInFile.mockImplementationOnce(() => {
      cancelBringIn();
      return Promise.resolve({ master: testMaster(), fresh: true });
    });
    expect(await bringIn(file('a.mp4'))).toBeNull();
    expect(useJobs.getState().files).toEqual({});
    expect(new Set(mockMedia.deleted)).toEqual(new Set([testMaster().fingerprint]));
    expect(useBringIn.getState()).toMatchObject({ fileName: null, trouble: null });
  });

  it('asks which sound to take where the first cannot be decoded', async () => {
    const others = [{ track: 1, codec: 'aac', channels: 2 }];
    mockMedia.bringInFile.mockRejectedValueOnce(
      new TroubleError('sound-missing', { file: 'a.mkv', codec: 'ac3', others }),
    );
    expect(await bringIn(file('a.mkv'))).toBeNull();
    const id = await useBringIn.getState().again?.(1);
    expect(mockMedia.bringInFile.mock.calls[1]?.[0]).toMatchObject({ sound: 1 });
    expect(jobOf(id ?? null)?.title).toBe('a');
  });

  it('asks for the same file when a job lost its bytes', async () => {
    const job = jobOf(await bringIn(file('edit.mp4')))!;
    expect(await bringBack(job, mainMaster(job), file('other.mp4'))).toBe(job.id);
    expect(mockMedia.bringInFile.mock.calls[1]?.[0]).toMatchObject({
      wanted: { fingerprint: mainMaster(job).fingerprint },
    });
  });
});

describe('the demo', () => {
  const serve = () =>
    jest.spyOn(globalThis, 'fetch').mockImplementation((path) =>
      Promise.resolve({
        ok: true,
        json: () => Promise.resolve(demo),
        blob: () => Promise.resolve(new Blob([String(path)])),
      } as Response),
    );

  it('becomes one job, with its own shots and words', async () => {
    serve();
    const id = await openDemo();
    expect(jobOf(id)).toMatchObject({
      title: 'A demo',
      edit: { shots: demo.shots, clips: [{ words: demo.words }] },
    });
    expect(await openDemo()).toBe(id);
    expect(mockMedia.bringInFile).toHaveBeenCalledTimes(1);
  });

  it('copies its film in again when the browser dropped it, and keeps the job', async () => {
    serve();
    const id = await openDemo();
    mockMedia.there = false;
    expect(await openDemo()).toBe(id);
    expect(Object.keys(useJobs.getState().files)).toEqual([id]);
    expect(mockMedia.bringInFile).toHaveBeenCalledTimes(2);
  });

  it('is not offered without its server', async () => {
    jest.spyOn(globalThis, 'fetch').mockRejectedValue(new Error('down'));
    expect(await openDemo()).toBeNull();
  });
});
