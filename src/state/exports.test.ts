import AsyncStorage from '@react-native-async-storage/async-storage';
import { activeClip, newJob, type Job } from '@core/job/job';
import { applyCommand } from '@core/job/commands/commands';
import { NO_BORDERS } from '@core/picture/borders';
import { framed, testJob, testMaster } from '@core/job/test-job';
import { TroubleError } from '@core/trouble/trouble';
import { cancelExport, deleteExport, startExport, useExports } from './exports';
import { addJob, useJobs } from './jobs';
import { sendPost, usePosts } from './posts';

const mockMedia = {
  makeExport: jest.fn(),
  proveExport: jest.fn(),
  deleted: [] as string[],
  uploadFile: jest.fn(),
};
jest.mock('@media/worker/tasks', () => ({
  makeExport: (...args: unknown[]) => mockMedia.makeExport(...args) as unknown,
  proveExport: (...args: unknown[]) => mockMedia.proveExport(...args) as unknown,
}));
jest.mock('@media/store/storage', () => ({
  deleteStored: (_folder: string, name: string) => Promise.resolve(void mockMedia.deleted.push(name)),
  storedFile: (_folder: string, name: string) => Promise.resolve(new File(['clip'], name)),
}));
jest.mock('@media/send/upload', () => ({
  uploadFile: (...args: unknown[]) => mockMedia.uploadFile(...args) as unknown,
}));

const proof = { facts: [], framesSearched: 984, borders: NO_BORDERS, pass: true };
const settled = () => new Promise((resolve) => setTimeout(resolve, 5));
const stored = (): Job => useJobs.getState().files['job-1']!.job;
/** The test job with its tag, so that nothing is kept back. */
function readyJob(): Job {
  const job = testJob();
  const words = { ...activeClip(job.edit).words, tags: ['upright'] };
  return { ...job, edit: applyCommand(job.edit, { type: 'set-words', words }) };
}

beforeEach(async () => {
  await AsyncStorage.clear();
  useJobs.setState({ loaded: true, files: {}, aside: [], saveTrouble: null });
  useExports.setState({ running: {} });
  usePosts.setState({ sending: null, trouble: null });
  mockMedia.deleted = [];
  mockMedia.makeExport.mockReset().mockResolvedValue({ bytes: [1000] });
  mockMedia.proveExport.mockReset().mockResolvedValue(proof);
  mockMedia.uploadFile.mockReset().mockResolvedValue('abc');
  addJob(readyJob());
});

const begin = (canvases = ['canvas-1']) => startExport(stored(), canvases);

describe('an export', () => {
  it('goes from running to proved, with its size', async () => {
    expect(begin()).toEqual(['canvas-1']);
    expect(stored().exports[0]?.state).toBe('running');
    await settled();
    expect(stored().exports[0]).toMatchObject({ state: 'done', bytes: 1000, proof });
    expect(useExports.getState().running).toEqual({});
  });

  it('is not begun while a stop keeps it back', () => {
    const job = readyJob();
    const barred = {
      ...job,
      edit: applyCommand(job.edit, framed({}, { fit: true })),
    };
    expect(startExport(barred, ['canvas-1'])).toEqual([]);
    expect(mockMedia.makeExport).not.toHaveBeenCalled();
  });

  it('that fails keeps its reason in words, and no bytes', async () => {
    mockMedia.makeExport.mockRejectedValue(new TroubleError('storage-full', { need: 5e6, free: null }));
    begin();
    await settled();
    const [record] = stored().exports;
    expect(record).toMatchObject({
      state: 'failed',
      error: expect.stringContaining('There is no room: 5.0 MB'),
    });
    expect(mockMedia.deleted).toEqual([`${record?.id}.mp4`]);
  });

  it('that is cancelled leaves no record', async () => {
    mockMedia.makeExport.mockImplementation(
      (_request: unknown, { signal }: { signal: AbortSignal }) =>
        new Promise((_, reject) =>
          signal.addEventListener('abort', () => reject(new TroubleError('cancelled'))),
        ),
    );
    begin();
    await settled();
    cancelExport(stored().exports[0]!.id);
    await settled();
    expect(stored().exports).toEqual([]);
  });

  it('waits for the one before it', async () => {
    let finish: (value: { bytes: number[] }) => void = () => undefined;
    mockMedia.makeExport.mockImplementationOnce(() => new Promise((resolve) => (finish = resolve)));
    begin();
    begin();
    await settled();
    expect(mockMedia.makeExport).toHaveBeenCalledTimes(1);
    expect(Object.values(useExports.getState().running).map((one) => one.stage)).toEqual([
      'waiting',
      'waiting',
    ]);
    finish({ bytes: [1] });
    await settled();
    expect(stored().exports.map((one) => one.state)).toEqual(['done', 'done']);
  });

  it('is deleted with its bytes', async () => {
    begin();
    await settled();
    const { id } = stored().exports[0]!;
    await deleteExport('job-1', id);
    expect(stored().exports).toEqual([]);
    expect(mockMedia.deleted).toContain(`${id}.mp4`);
  });
});

describe('a post', () => {
  const answer = (status: number, body: unknown) =>
    jest
      .spyOn(globalThis, 'fetch')
      .mockResolvedValue({ ok: status < 400, status, json: () => Promise.resolve(body) } as Response);
  const ready = async () => {
    begin();
    await settled();
    return stored().exports[0]!;
  };
  afterEach(() => jest.restoreAllMocks());

  it('sends the words with the upload, and keeps what the outlet said', async () => {
    const fetched = answer(200, { state: 'accepted', page: '/outlets/verrow/#1' });
    await sendPost(stored(), await ready());
    const [path, init] = fetched.mock.calls[0]!;
    expect(path).toBe('/outlets/verrow/api/posts');
    expect(JSON.parse(String(init?.body))).toMatchObject({
      upload: 'abc',
      placement: 'short',
      tags: ['upright'],
      audience: 'private',
    });
    expect(stored().posts[0]).toMatchObject({ state: 'accepted', page: '/outlets/verrow/#1' });
  });

  it('that is refused keeps the reasons', async () => {
    answer(200, { state: 'refused', reasons: ['Too long.'] });
    await sendPost(stored(), await ready());
    expect(stored().posts[0]).toMatchObject({ state: 'refused', reasons: ['Too long.'] });
  });

  it.each([
    [
      'a server that is down',
      () => jest.spyOn(globalThis, 'fetch').mockRejectedValue(new Error('no')),
      'server-down',
    ],
    ['a server that fails', () => answer(500, {}), 'post-failed'],
    ['an answer that makes no sense', () => answer(200, { state: 'maybe' }), 'post-failed'],
  ])('to %s keeps the clip and says so', async (_, prepare, code) => {
    prepare();
    await sendPost(stored(), await ready());
    expect(stored().posts).toEqual([]);
    expect(usePosts.getState()).toMatchObject({ sending: null, trouble: { code } });
  });

  it('is not sent while a stop keeps it back', async () => {
    const job = newJob({ id: 'job-2', title: 'x', now: '2026-11-01T10:00:00.000Z', master: testMaster() });
    await sendPost(job, await ready());
    expect(mockMedia.uploadFile).not.toHaveBeenCalled();
  });
});
