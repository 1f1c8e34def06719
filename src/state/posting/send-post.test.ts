import { parseRandomId } from '@core/figures/random-id';
import { newJob } from '@core/job/job';
import { testMaster } from '@core/job/test-job';
import { SHIPPED_SHEETS } from '@core/outlets/shipped';
import type { Account } from '@core/posting/accounts';
import type { DispatchedPost, PostOrder } from '@core/posting/post-order';
import { addClip, removeClip } from '../cut';
import { dispatch } from '../job';
import { followPosted, takePosted, useFollowedPosts } from './follow-posts';
import { sendPost, useSendings } from './send-post';
import { begin, readyToExport, waitForTasks, readStored } from '../export/test-exports';
import { storage } from '../store';
import { mockMedia } from '../test-media';
import type * as TestMedia from '../test-media';
import { FakeEvents, respond } from '../test-server';

jest.mock('@media/worker/tasks', () => jest.requireActual<typeof TestMedia>('../test-media').mockTasks);
jest.mock('@media/store/storage', () => jest.requireActual<typeof TestMedia>('../test-media').mockStorage);
jest.mock('@media/send/upload', () => jest.requireActual<typeof TestMedia>('../test-media').mockUpload);

const account: Account = {
  id: parseRandomId('a'.repeat(32)),
  outlet: 'verrow',
  account: { id: 'odlin', name: 'Odlin Marrable', kind: 'person', picture: null },
  scopes: ['read', 'post'],
  state: 'good',
};
const now = { account, when: null };

beforeEach(async () => {
  await readyToExport();
  useSendings.setState({ sending: {}, troubles: {} });
  useFollowedPosts.setState({ posts: {}, troubles: {}, heard: 'asking' });
  mockMedia.uploadFile.mockResolvedValue('b'.repeat(32));
});

describe('a post', () => {
  /** A server that takes every order, unless told otherwise. */
  const server = () =>
    jest.spyOn(globalThis, 'fetch').mockImplementation((_path, init) => {
      const order = JSON.parse(String(init?.body)) as PostOrder;
      return Promise.resolve(respond(202, postedOf(order)));
    });
  const postedOf = (order: PostOrder, change: Partial<DispatchedPost> = {}): DispatchedPost => ({
    ...order,
    ...{
      version: 1,
      state: 'waiting',
      bytes: 5,
      sha256: null,
      sent: 0,
      share: 0,
      reasons: [],
      hold: null,
      wait: null,
    },
    ...{ ahead: false, page: null, compared: null, madeAt: 1, upAt: null },
    ...change,
  });
  const sent = (fetched: jest.SpyInstance) =>
    JSON.parse(String((fetched.mock.calls.at(-1) as [string, RequestInit])[1].body)) as PostOrder;
  const ready = async () => {
    begin();
    await waitForTasks();
    return readStored().exports[0]!;
  };
  afterEach(() => jest.restoreAllMocks());

  it('gives file and words to the server, and is followed from there', async () => {
    const fetched = server();
    await sendPost(readStored(), await ready(), now);
    expect(fetched.mock.calls.at(-1)?.[0]).toBe('/posting/api/posts');
    const order = sent(fetched);
    expect(order).toMatchObject({
      upload: 'b'.repeat(32),
      outlet: 'verrow',
      account: account.id,
      words: { placement: 'short', tags: ['upright'], audience: 'private' },
      when: null,
    });
    expect(readStored().posts[0]).toMatchObject({
      id: order.id,
      state: 'waiting',
      account: 'Odlin Marrable',
    });
    const page = '/outlets/verrow/posts/1';
    await takePosted(postedOf(order, { version: 3, state: 'up', page }));
    expect(readStored().posts).toHaveLength(1);
    expect(readStored().posts[0]).toMatchObject({ state: 'up', page });
    // What comes late changes nothing.
    await takePosted(postedOf(order, { version: 2, state: 'processing' }));
    expect(readStored().posts[0]).toMatchObject({ state: 'up', page });
  });

  it('that is told of before its answer came is noted as it stands then', async () => {
    const record = await ready();
    jest.spyOn(globalThis, 'fetch').mockImplementation(async (_path, init) => {
      const order = JSON.parse(String(init?.body)) as PostOrder;
      await takePosted(postedOf(order, { version: 4, state: 'held', hold: 'withdrawn' }));
      return respond(202, postedOf(order));
    });
    await sendPost(readStored(), record, now);
    expect(readStored().posts[0]).toMatchObject({ state: 'held' });
  });

  it('is not said to be nothing where the server does not answer', async () => {
    const events = FakeEvents.install();
    const leave = followPosted();
    expect(useFollowedPosts.getState().heard).toBe('asking');
    events().onerror?.();
    expect(useFollowedPosts.getState().heard).toBe('down');
    jest.spyOn(globalThis, 'fetch').mockResolvedValue(respond(200, { posts: [] }));
    events().onopen?.();
    await waitForTasks();
    expect(useFollowedPosts.getState().heard).toBe('all');
    leave();
  });

  it('whose answer was lost asks again for the same post, and sends the file no second time', async () => {
    const record = await ready();
    const fetched = server();
    fetched.mockRejectedValueOnce(new Error('the answer was lost'));
    await sendPost(readStored(), record, now);
    expect(useSendings.getState().troubles[record.id]?.code).toBe('server-down');
    const first = sent(fetched);
    await sendPost(readStored(), record, now);
    expect(mockMedia.uploadFile).toHaveBeenCalledTimes(1);
    expect(sent(fetched)).toEqual(first);
    expect(readStored().posts).toHaveLength(1);
  });

  it('of an upload that the server no longer has sends the file again', async () => {
    const record = await ready();
    const fetched = server();
    fetched.mockRejectedValueOnce(new Error('lost'));
    await sendPost(readStored(), record, now);
    fetched.mockResolvedValueOnce(respond(409, {}));
    await sendPost(readStored(), record, now);
    expect(mockMedia.uploadFile).toHaveBeenCalledTimes(2);
    expect(readStored().posts[0]?.state).toBe('waiting');
  });

  it('is not sending for ever where its record cannot be written', async () => {
    const record = await ready();
    server();
    const full = () => Promise.reject(new Error('quota'));
    jest
      .spyOn(storage, 'setItem')
      .mockImplementation((key) => (key.includes('/post/') ? full() : Promise.resolve()));
    await sendPost(readStored(), record, now);
    expect(useSendings.getState().sending).toEqual({});
    expect(useSendings.getState().troubles[record.id]?.code).toBe('save-failed');
  });

  it('that was refused is mended, and its file is not sent again', async () => {
    const record = await ready();
    const fetched = server();
    await sendPost(readStored(), record, now);
    const order = sent(fetched);
    await takePosted(postedOf(order, { version: 2, state: 'refused', reasons: ['Too long.'] }));
    expect(readStored().posts[0]).toMatchObject({ state: 'refused', reasons: ['Too long.'] });
    fetched.mockResolvedValueOnce(respond(200, postedOf(order, { version: 3 })));
    await sendPost(readStored(), record, now);
    expect(fetched.mock.calls.at(-1)?.[0]).toBe(`/posting/api/posts/${order.id}/again`);
    expect(mockMedia.uploadFile).toHaveBeenCalledTimes(1);
    expect(readStored().posts).toHaveLength(1);
    expect(readStored().posts[0]?.state).toBe('waiting');
  });

  it("goes out with its own clip's words, whatever is worked on, and also once that clip is removed", async () => {
    const record = await ready();
    addClip(readStored());
    dispatch('job-1', {
      type: 'set-words',
      words: { title: 'Another clip', description: '', tags: [] },
    });
    dispatch('job-1', { type: 'set-audience', audience: 'public' });
    const fetched = server();
    await sendPost(readStored(), record, now);
    expect(sent(fetched).words).toMatchObject({ title: 'Edit', tags: ['upright'], audience: 'private' });
    removeClip(readStored(), 'clip-1');
    await sendPost(readStored(), record, now);
    expect(sent(fetched).words).toMatchObject({ title: 'Edit', tags: ['upright'], audience: 'private' });
    expect(readStored().posts.map((post) => post.clip)).toEqual(['clip-1', 'clip-1']);
  });

  it('goes out with what was written otherwise for its outlet', async () => {
    const record = await ready();
    const words = { ...readStored().edit.clips[0]!.words, variants: { verrow: { title: 'For Verrow' } } };
    dispatch('job-1', { type: 'set-words', words });
    const fetched = server();
    await sendPost(readStored(), record, now);
    expect(sent(fetched).words).toMatchObject({ title: 'For Verrow', tags: ['upright'] });
  });

  it.each([
    [
      'a server that is down',
      () => jest.spyOn(globalThis, 'fetch').mockRejectedValue(new Error('no')),
      'server-down',
    ],
    [
      'a server that fails',
      () => jest.spyOn(globalThis, 'fetch').mockResolvedValue(respond(500, {})),
      'server-refused',
    ],
    [
      'an answer that makes no sense',
      () => jest.spyOn(globalThis, 'fetch').mockResolvedValue(respond(200, { state: 'maybe' })),
      'server-answer',
    ],
  ])('to %s keeps the clip and says so', async (_, prepare, code) => {
    prepare();
    const record = await ready();
    await sendPost(readStored(), record, now);
    expect(readStored().posts).toEqual([]);
    expect(useSendings.getState()).toMatchObject({ sending: {}, troubles: { [record.id]: { code } } });
  });

  it('is not sent while a stop keeps it back', async () => {
    const job = newJob({
      id: 'job-2',
      title: 'x',
      now: '2026-11-01T10:00:00.000Z',
      master: testMaster(),
      sheets: SHIPPED_SHEETS,
    });
    await sendPost(job, await ready(), now);
    expect(mockMedia.uploadFile).not.toHaveBeenCalled();
  });
});
