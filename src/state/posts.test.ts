import { newJob } from '@core/job/job';
import { testMaster } from '@core/job/test-job';
import { SHIPPED_SHEETS } from '@core/outlets/shipped';
import { addClip, removeClip } from './clips';
import { dispatch } from './jobs';
import { sendPost, usePosts } from './posts';
import { begin, readyToExport, settled, stored } from './test-exports';
import { mockMedia } from './test-media';
import type * as TestMedia from './test-media';

jest.mock('@media/worker/tasks', () => jest.requireActual<typeof TestMedia>('./test-media').mockTasks);
jest.mock('@media/store/storage', () => jest.requireActual<typeof TestMedia>('./test-media').mockStorage);
jest.mock('@media/send/upload', () => jest.requireActual<typeof TestMedia>('./test-media').mockUpload);

beforeEach(async () => {
  await readyToExport();
  usePosts.setState({ sending: null, trouble: null });
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
