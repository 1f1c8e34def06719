import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { RandomId } from '../../src/core/figures/random-id';
import { type DispatchedPost, postedSchema, type PostOrder } from '../../src/core/posting/post-order';
import { toTimestamp, type PostTime, toWhen } from '../../src/core/posting/when';
import { postWordsSchema } from '../../src/core/outlets/post-form';
import { goodPost } from '../../tests/good-post';
import { makeClip } from '../../tests/make-clip';
import { signIn } from '../../tests/sign-in';
import { createId } from '../store/create-id';
import { sweep } from '../sweep';
import { Client, FORM, openTestServer, type TestServer } from '../test-client';

const good = readFileSync(makeClip('good.mp4', { size: '1080x1920', seconds: 1 }));
let server: TestServer;
let client: Client;
let account: RandomId;

beforeEach(async () => {
  server = await openTestServer();
  client = new Client(server.origin);
  account = await signIn(client, 'verrow', 'odlin');
});
afterEach(() => server.close());

async function restarted(between = () => Promise.resolve()): Promise<void> {
  const { data } = server;
  await server.close();
  await between();
  server = await openTestServer(data);
  client = client.at(server.origin);
}

const json = (method: string, body: unknown = {}): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

async function orderOf(change: Partial<PostOrder> = {}): Promise<PostOrder> {
  const upload = await client.upload('/posting/api/uploads', good);
  const words = postWordsSchema.parse(FORM);
  return {
    id: createId(),
    upload,
    fileName: 'kite.mp4',
    outlet: 'verrow',
    account,
    words,
    when: null,
    ...change,
  };
}

async function order(change: Partial<PostOrder> = {}): Promise<DispatchedPost> {
  const response = await client.fetch('/posting/api/posts', json('POST', await orderOf(change)));
  expect(response.status).toBe(202);
  return postedSchema.parse(await response.json());
}

async function stateOf(id: string): Promise<DispatchedPost | undefined> {
  const { posts } = (await (await client.fetch('/posting/api/posts')).json()) as { posts: unknown[] };
  return posts.map((post) => postedSchema.parse(post)).find((post) => post.id === id);
}

/** Waits until a post stands somewhere. */
async function comesTo(id: string, is: (post: DispatchedPost) => boolean): Promise<DispatchedPost> {
  for (let n = 0; n < 2400; n++) {
    const post = await stateOf(id);
    if (post && is(post)) return post;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`the post is ${JSON.stringify(await stateOf(id))}`);
}
const isUp = ({ state }: DispatchedPost): boolean => state === 'up';
const isAhead = ({ ahead }: DispatchedPost): boolean => ahead;

/** A post for later that an outlet has already, which keeps its time. */
async function handedOver(when: PostTime): Promise<DispatchedPost> {
  const outlet = 'commonfold';
  const { clip, words } = goodPost(outlet);
  const upload = await client.upload('/posting/api/uploads', clip);
  const own = await signIn(client, outlet, 'odlin');
  const { id } = await order({ outlet, account: own, upload, words, when });
  return comesTo(id, isAhead);
}
const board = async (outlet = 'verrow', viewer = client): Promise<number> =>
  (await (await viewer.fetch(`/outlets/${outlet}/`)).text()).match(/<article/g)?.length ?? 0;
const weather = (name: string, tokens = '') =>
  client.fetch('/outlets/verrow/weather', {
    method: 'POST',
    body: new URLSearchParams({ weather: name, tokens }),
  });

describe('a post', () => {
  it('is carried to its outlet once, and what a viewer gets is held against what was sent', async () => {
    const asked = await orderOf();
    for (let n = 0; n < 2; n++)
      expect((await client.fetch('/posting/api/posts', json('POST', asked))).status).toBe(202);
    const post = await comesTo(asked.id, ({ compared }) => compared !== null);
    expect(post).toMatchObject({
      state: 'up',
      sent: good.length,
      bytes: good.length,
      hold: null,
      wait: null,
    });
    expect(post.sha256).toBe(createHash('sha256').update(good).digest('hex'));
    expect(post.compared).toMatchObject({ width: 1080, height: 1920, frames: 24, worst: { second: 0 } });
    expect(post.compared!.ssim).toBeGreaterThan(0.8);
    expect(post.compared!.ssim).toBeLessThan(1);
    expect(await board()).toBe(1);
    for (const kind of ['sent', 'viewed']) {
      const picture = await client.fetch(`/posting/api/posts/${post.id}/pictures/${kind}?frame=3`);
      expect([picture.status, picture.headers.get('content-type')]).toEqual([200, 'image/png']);
    }
    // Of two that are asked for at once each is its own.
    const frames = [0, 23];
    const pictures = (all: readonly number[]) =>
      Promise.all(
        all.map(async (frame) => {
          const asked = await client.fetch(`/posting/api/posts/${post.id}/pictures/sent?frame=${frame}`);
          return createHash('sha256')
            .update(new Uint8Array(await asked.arrayBuffer()))
            .digest('hex');
        }),
      );
    const together = await pictures(frames);
    expect(new Set(together).size).toBe(2);
    expect(together).toEqual([...(await pictures([0])), ...(await pictures([23]))]);
    // It is nobody else's.
    const other = new Client(server.origin);
    await signIn(other, 'verrow', 'odlin');
    expect(await (await other.fetch('/posting/api/posts')).json()).toEqual({ posts: [] });
    for (const act of ['again', 'take-down'])
      expect((await other.fetch(`/posting/api/posts/${post.id}/${act}`, json('POST'))).status).toBe(404);
    expect((await other.fetch('/posting/api/posts', json('POST', { ...asked, id: createId() }))).status).toBe(
      409,
    );
  });

  it('is private first, published with one word, and taken down', async () => {
    const { id } = await order();
    const { page } = await comesTo(id, isUp);
    const stranger = new Client(server.origin);
    expect((await stranger.fetch(page ?? '')).status).toBe(404);
    expect((await client.fetch(page ?? '')).status).toBe(200);
    await client.fetch(`/posting/api/posts/${id}/audience`, json('PUT', { audience: 'public' }));
    expect((await stranger.fetch(page ?? '')).status).toBe(200);
    expect((await stateOf(id))?.words.audience).toBe('public');
    await client.fetch(`/posting/api/posts/${id}/take-down`, json('POST'));
    expect((await stranger.fetch(page ?? '')).status).toBe(404);
    expect(await stateOf(id)).toMatchObject({ state: 'down', page: null });
  });

  /** Lets answers to posts get lost, after or before the outlet has heard of them. */
  function loseAnswers({ after }: { after: boolean }): jest.SpyInstance {
    const real = globalThis.fetch;
    return jest.spyOn(globalThis, 'fetch').mockImplementation(async (address, init) => {
      const isPost =
        init?.method === 'POST' &&
        /\/api\/posts$/.test(String(address)) &&
        String(address).includes('/outlets/');
      if (isPost && !after) throw new TypeError('fetch failed');
      const answer = await real(address, init);
      if (isPost) throw new TypeError('terminated');
      return answer;
    });
  }
  const isUnsure = ({ state, wait }: DispatchedPost) => state === 'waiting' && wait?.why === 'down';
  const publicWords = { ...postWordsSchema.parse(FORM), audience: 'public' as const };

  it.each([
    ['was lost after the outlet took it', true],
    ['was lost before the outlet heard of it', false],
  ])('is called back for good where its answer %s', async (_how, after) => {
    const lost = loseAnswers({ after });
    const { id } = await order({ words: publicWords });
    await comesTo(id, isUnsure);
    lost.mockRestore();
    expect((await client.fetch(`/posting/api/posts/${id}`, { method: 'DELETE' })).status).toBe(204);
    expect(await stateOf(id)).toBeUndefined();
    await new Promise((resolve) => setTimeout(resolve, 1500));
    expect(await board('verrow', new Client(server.origin))).toBe(0);
  });

  it('that is called back while its outlet is away is taken back once it answers', async () => {
    const lost = loseAnswers({ after: true });
    const { id } = await order({ words: publicWords });
    await comesTo(id, isUnsure);
    expect((await client.fetch(`/posting/api/posts/${id}`, { method: 'DELETE' })).status).toBe(503);
    lost.mockRestore();
    while (await stateOf(id)) await new Promise((resolve) => setTimeout(resolve, 100));
    expect(await board('verrow', new Client(server.origin))).toBe(0);
  });

  it('is up once, as it was changed last, where the answer to what it was before was lost', async () => {
    const lost = loseAnswers({ after: true });
    const { id } = await order({ words: publicWords });
    await comesTo(id, isUnsure);
    lost.mockRestore();
    const words = { ...publicWords, title: 'Changed meanwhile' };
    await client.fetch(`/posting/api/posts/${id}/again`, json('POST', { words }));
    await comesTo(id, isUp);
    await new Promise((resolve) => setTimeout(resolve, 1500));
    const viewer = new Client(server.origin);
    expect(await board('verrow', viewer)).toBe(1);
    expect(await (await viewer.fetch('/outlets/verrow/')).text()).toContain('Changed meanwhile');
  });

  it('that was refused is mended and goes out, and its file is not sent again', async () => {
    const words = { ...postWordsSchema.parse(FORM), tags: [] };
    const { id } = await order({ words });
    const refused = await comesTo(id, ({ state }) => state === 'refused');
    expect(refused.reasons).toEqual(['The tag #upright is missing.']);
    const sent: string[] = [];
    const door = jest.spyOn(server.swept.outlets[0]!.door, 'state');
    await client.fetch(
      `/posting/api/posts/${id}/again`,
      json('POST', { words: postWordsSchema.parse(FORM) }),
    );
    await comesTo(id, isUp);
    for (const [upload] of door.mock.calls) sent.push(upload);
    expect(new Set(sent).size).toBe(1);
    expect(await board()).toBe(1);
  });

  it('for later goes out at its time, and is changed and called back until then', async () => {
    const tomorrow = toWhen(Date.now() + 86_400_000, 'Pacific/Auckland');
    const later = await order({ when: tomorrow });
    const other = await order({ when: tomorrow });
    expect(later.state).toBe('waiting');
    await client.fetch(`/posting/api/posts/${other.id}`, { method: 'DELETE' });
    expect(await stateOf(other.id)).toBeUndefined();
    const words = { ...postWordsSchema.parse(FORM), title: 'Another title' };
    await client.fetch(`/posting/api/posts/${later.id}/again`, json('POST', { words }));
    expect(await stateOf(later.id)).toMatchObject({
      state: 'waiting',
      when: tomorrow,
      words: { title: 'Another title' },
    });
    // Its file stays, however long that is.
    await sweep(server.swept, Date.now() + 48 * 3600 * 1000);
    await client.fetch(`/posting/api/posts/${later.id}/again`, json('POST', { when: null }));
    await comesTo(later.id, isUp);
    expect(await board()).toBe(1);
    const past = await orderOf({ when: toWhen(Date.now() - 3_600_000, 'UTC') });
    expect((await client.fetch('/posting/api/posts', json('POST', past))).status).toBe(422);
  });

  it('for later is handed over at once where the outlet keeps its time, and is changed and called back there', async () => {
    const tomorrow = toWhen(Date.now() + 86_400_000, 'Asia/Tokyo');
    const { id, words } = await handedOver(tomorrow);
    expect(await stateOf(id)).toMatchObject({ state: 'waiting', when: tomorrow });
    // Its account sees it, and nobody else.
    const anyone = new Client(server.origin);
    expect([await board('commonfold'), await board('commonfold', anyone)]).toEqual([1, 0]);
    const change = json('POST', { words: { ...words, title: 'Another title' } });
    expect((await client.fetch(`/posting/api/posts/${id}/again`, change)).status).toBe(200);
    await comesTo(id, isAhead);
    expect(await board('commonfold')).toBe(1);
    expect(await (await client.fetch('/outlets/commonfold/')).text()).toContain('Another title');
    await client.fetch(`/posting/api/posts/${id}`, { method: 'DELETE' });
    expect(await board('commonfold')).toBe(0);
  });

  it('that was handed over is taken back where its account is removed, and goes out by another', async () => {
    const { id, account } = await handedOver(toWhen(Date.now() + 86_400_000, 'UTC'));
    await client.fetch(`/posting/api/accounts/${account}`, { method: 'DELETE' });
    expect(await stateOf(id)).toMatchObject({ state: 'held', hold: 'gone', ahead: false });
    const page = await signIn(client, 'commonfold', 'windle');
    expect(await board('commonfold')).toBe(0);
    await client.fetch(`/posting/api/posts/${id}/again`, json('POST', { account: page, when: null }));
    await comesTo(id, isUp);
    expect(await board('commonfold')).toBe(1);
  });

  it('that was handed over comes up at its time, though the server was off', async () => {
    const soon = toWhen(Date.now() + 180_000, 'UTC');
    const { id } = await handedOver(soon);
    const now = Date.now;
    try {
      await restarted(() => {
        jest.spyOn(Date, 'now').mockImplementation(() => now() + 300_000);
        return Promise.resolve();
      });
      expect(await comesTo(id, ({ state }) => state !== 'waiting' && state !== 'processing')).toMatchObject({
        ...{ state: 'up', ahead: false, when: soon, upAt: toTimestamp(soon) },
      });
      expect(await board('commonfold', new Client(server.origin))).toBe(1);
    } finally {
      jest.restoreAllMocks();
    }
  });

  it('whose time went by while the server was off waits for its person', async () => {
    const { id } = await order({ when: toWhen(Date.now() + 120_000, 'UTC') });
    const now = jest.spyOn(Date, 'now');
    await restarted(() => {
      const real = performance.timeOrigin + performance.now();
      now.mockImplementation(() => real + 3_600_000);
      return Promise.resolve();
    });
    expect((await stateOf(id))?.state).toBe('missed');
    now.mockRestore();
    await client.fetch(`/posting/api/posts/${id}/again`, json('POST', { when: null }));
    await comesTo(id, isUp);
  });

  it('goes on where a server that ended left it', async () => {
    await weather('slow');
    const { id } = await order();
    await comesTo(id, ({ state }) => state !== 'waiting');
    await restarted();
    await comesTo(id, isUp);
    expect(await board()).toBe(1);
  });
});

describe('an outlet that makes trouble', () => {
  it.each(['busy', 'dropping', 'slow'])('and is %s gets each post once', async (name) => {
    await weather(name);
    const { id } = await order();
    // What a viewer gets comes all the same, in that weather.
    expect((await comesTo(id, ({ compared }) => compared !== null)).state).toBe('up');
    await weather('fair');
    expect(await board()).toBe(1);
  });

  it('and is full is waited for, and said to be', async () => {
    await weather('full');
    const { id } = await order();
    expect((await comesTo(id, ({ wait }) => wait !== null)).wait).toMatchObject({ why: 'full' });
    await weather('fair');
    await comesTo(id, isUp);
  });

  it('and cannot process a clip says so, and may be asked again', async () => {
    await weather('failing');
    const { id } = await order();
    expect(await comesTo(id, ({ state }) => state === 'failed')).toMatchObject({
      reasons: ['The clip could not be processed.'],
    });
    await weather('fair');
    await client.fetch(`/posting/api/posts/${id}/again`, json('POST'));
    await comesTo(id, isUp);
  });

  it('and lets tokens expire is given new ones', async () => {
    await weather('fair', 'expire');
    const { id } = await order();
    await comesTo(id, isUp);
  });

  it('and takes consent back holds the post until its person signs in again', async () => {
    await weather('fair', 'withdraw');
    const { id } = await order();
    expect(await comesTo(id, ({ state }) => state === 'held')).toMatchObject({ hold: 'withdrawn' });
    expect(await (await client.fetch('/posting/api/accounts')).json()).toMatchObject({
      accounts: [{ id: account, state: 'withdrawn' }],
    });
    expect(await signIn(client, 'verrow', 'odlin')).toBe(account);
    await client.fetch(`/posting/api/posts/${id}/again`, json('POST'));
    await comesTo(id, isUp);
  });

  it('is told of an account that is gone by its posts, and nothing of them is lost', async () => {
    const { id } = await order({ when: toWhen(Date.now() + 86_400_000, 'UTC') });
    await client.fetch(`/posting/api/accounts/${account}`, { method: 'DELETE' });
    expect(await stateOf(id)).toMatchObject({ state: 'held', hold: 'gone' });
    const page = await signIn(client, 'verrow', 'windle');
    await client.fetch(`/posting/api/posts/${id}/again`, json('POST', { account: page, when: null }));
    await comesTo(id, isUp);
  });
});
