import { activeClip, newJob, type Job } from '@core/job/job';
import { applyCommand } from '@core/job/commands/commands';
import { NO_BORDERS } from '@core/picture/borders';
import { framed, testJob, testMaster } from '@core/job/test-job';
import { testPass } from '@core/job/test-pass';
import { TroubleError } from '@core/trouble/trouble';
import { addClip, removeClip } from './clips';
import { cancelExport, deleteExport, exportNow, startExport, stopWaiting, useExports } from './exports';
import { addJob, dispatch, NO_JOBS, useJobs } from './jobs';
import { usePasses } from './passes';
import { storage } from './store/storage';
import { sendPost, usePosts } from './posts';
import { SHIPPED_SHEETS } from '@core/outlets/shipped';

const mockMedia = {
  makeExport: jest.fn(),
  proveExport: jest.fn(),
  deleted: [] as string[],
  /** Whether the browser refuses to delete. */
  refuses: false,
  uploadFile: jest.fn(),
};
jest.mock('@media/worker/tasks', () => ({
  makeExport: (...args: unknown[]) => mockMedia.makeExport(...args) as unknown,
  proveExport: (...args: unknown[]) => mockMedia.proveExport(...args) as unknown,
}));
jest.mock('@media/store/storage', () => ({
  deleteStored: (_folder: string, name: string) =>
    mockMedia.refuses
      ? Promise.reject(new Error('locked'))
      : Promise.resolve(void mockMedia.deleted.push(name)),
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
  const words = { ...activeClip(job.edit).words, tags: ['upright'], forChildren: false };
  return { ...job, edit: applyCommand(job.edit, { type: 'set-words', words }) };
}

beforeEach(async () => {
  await storage.clear();
  useJobs.setState({ ...NO_JOBS, loaded: true });
  useExports.setState({ running: {}, waiting: [] });
  usePasses.setState({ [testMaster().fingerprint]: { state: 'done', pass: testPass() } }, true);
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

  it('waits for the look at its master, and is made of the job as that left it', async () => {
    const { fingerprint } = testMaster();
    usePasses.setState({ [fingerprint]: { state: 'running', done: 1, total: 2, left: null } }, true);
    expect(begin()).toEqual([]);
    expect(useExports.getState().waiting).toMatchObject([{ jobId: 'job-1', canvases: ['canvas-1'] }]);
    expect(mockMedia.makeExport).not.toHaveBeenCalled();
    dispatch('job-1', { type: 'set-video-bits', bits: 3_000_000 });
    usePasses.setState({ [fingerprint]: { state: 'done', pass: testPass() } });
    await settled();
    expect(useExports.getState().waiting).toEqual([]);
    expect(stored().exports[0]).toMatchObject({ state: 'done', videoBits: 3_000_000 });
  });

  it('that waits can be let go, or begun without the look', async () => {
    usePasses.setState({}, true);
    begin();
    stopWaiting('job-1', 'clip-1');
    expect(useExports.getState().waiting).toEqual([]);
    begin();
    expect(exportNow(stored(), ['canvas-1'])).toEqual(['canvas-1']);
    expect(useExports.getState().waiting).toEqual([]);
    await settled();
    expect(stored().exports[0]?.state).toBe('done');
  });

  it('waits by its clip: another clip of the job neither goes out for it nor ends its waiting', async () => {
    usePasses.setState({}, true);
    begin();
    addClip(stored());
    const other = stored();
    expect(activeClip(other.edit).id).not.toBe('clip-1');
    const [canvas] = activeClip(other.edit).canvases;
    expect(exportNow(other, [canvas!.id])).toEqual([canvas!.id]);
    expect(useExports.getState().waiting).toMatchObject([{ clip: 'clip-1' }]);
    usePasses.setState({ [testMaster().fingerprint]: { state: 'done', pass: testPass() } });
    await settled();
    expect(useExports.getState().waiting).toEqual([]);
    expect(stored().exports.map((record) => record.clip)).toContain('clip-1');
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
      error: expect.stringContaining('There is not enough room: 5.0 MB'),
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
    expect(Object.values(useExports.getState().running).map((running) => running.stage)).toEqual([
      'waiting',
      'waiting',
    ]);
    finish({ bytes: [1] });
    await settled();
    expect(stored().exports.map((record) => record.state)).toEqual(['done', 'done']);
  });

  it('whose clean-up fails is settled all the same, and holds the next one up no longer', async () => {
    const told = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    mockMedia.makeExport.mockRejectedValueOnce(new Error('odd'));
    mockMedia.refuses = true;
    begin();
    begin();
    await settled();
    mockMedia.refuses = false;
    expect(
      stored()
        .exports.map((record) => record.state)
        .sort(),
    ).toEqual(['done', 'failed']);
    expect(useExports.getState().running).toEqual({});
    told.mockRestore();
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
    const fetched = answer(200, { state: 'accepted', page: '/outlets/verrow/posts/1' });
    await sendPost(stored(), await ready());
    const [path, init] = fetched.mock.calls[0]!;
    expect(path).toBe('/outlets/verrow/api/posts');
    expect(JSON.parse(String(init?.body))).toMatchObject({
      upload: 'abc',
      placement: 'short',
      tags: ['upright'],
      audience: 'private',
    });
    expect(stored().posts[0]).toMatchObject({ state: 'accepted', page: '/outlets/verrow/posts/1' });
  });

  it('whose answer was lost asks again for the same upload, and sends the file no second time', async () => {
    const record = await ready();
    jest.spyOn(globalThis, 'fetch').mockRejectedValueOnce(new Error('the answer was lost'));
    await sendPost(stored(), record);
    expect(usePosts.getState().trouble?.code).toBe('server-down');
    const fetched = answer(200, { state: 'accepted', page: '/outlets/verrow/posts/1' });
    await sendPost(stored(), record);
    expect(mockMedia.uploadFile).toHaveBeenCalledTimes(1);
    expect(JSON.parse(String(fetched.mock.calls.at(-1)?.[1]?.body))).toMatchObject({ upload: 'abc' });
    expect(stored().posts).toHaveLength(1);
  });

  it('of an upload that the outlet no longer has sends the file again', async () => {
    const record = await ready();
    jest.spyOn(globalThis, 'fetch').mockRejectedValueOnce(new Error('lost'));
    await sendPost(stored(), record);
    const fetched = answer(200, { state: 'accepted', page: '/outlets/verrow/posts/1' });
    fetched.mockResolvedValueOnce({ ok: false, status: 404, json: () => Promise.resolve({}) } as Response);
    await sendPost(stored(), record);
    expect(mockMedia.uploadFile).toHaveBeenCalledTimes(2);
    expect(stored().posts[0]?.state).toBe('accepted');
  });

  it("goes out with its own clip's words, whatever is worked on, and also once that clip is removed", async () => {
    const record = await ready();
    addClip(stored());
    dispatch('job-1', {
      type: 'set-words',
      words: { title: 'Another clip', description: '', tags: [] },
    });
    dispatch('job-1', { type: 'set-audience', audience: 'public' });
    const fetched = answer(200, { state: 'accepted', page: '/outlets/verrow/posts/1' });
    const sent = () => JSON.parse(String(fetched.mock.calls.at(-1)?.[1]?.body)) as object;
    await sendPost(stored(), record);
    expect(sent()).toMatchObject({ title: 'Edit', tags: ['upright'], audience: 'private' });
    removeClip(stored(), 'clip-1');
    await sendPost(stored(), record);
    expect(sent()).toMatchObject({ title: 'Edit', tags: ['upright'], audience: 'private' });
    expect(stored().posts.map((post) => post.clip)).toEqual(['clip-1', 'clip-1']);
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
    ['a server that fails', () => answer(500, {}), 'server-refused'],
    ['an answer that makes no sense', () => answer(200, { state: 'maybe' }), 'server-answer'],
    [
      'an answer that leads elsewhere',
      () => answer(200, { state: 'accepted', page: 'https://example.test/' }),
      'server-answer',
    ],
  ])('to %s keeps the clip and says so', async (_, prepare, code) => {
    prepare();
    await sendPost(stored(), await ready());
    expect(stored().posts).toEqual([]);
    expect(usePosts.getState()).toMatchObject({ sending: null, trouble: { code } });
  });

  it('is not sent while a stop keeps it back', async () => {
    const job = newJob({
      id: 'job-2',
      title: 'x',
      now: '2026-11-01T10:00:00.000Z',
      master: testMaster(),
      sheets: SHIPPED_SHEETS,
    });
    await sendPost(job, await ready());
    expect(mockMedia.uploadFile).not.toHaveBeenCalled();
  });
});
