import { SHIPPED_SHEETS } from '../../src/core/outlets/shipped';
import { type DispatchedPost, postedSchema } from '../../src/core/posting/post-order';
import { goodPost } from '../../tests/good-post';
import { signIn } from '../../tests/sign-in';
import { SEED, seeded, soakFigure, trials } from '../../tests/soak';
import { TestServer } from '../../tests/test-server';
import { INJECTED_FAULTS } from '../outlets/stand-in/fault-injection';
import { createId } from '../store/create-id';
import { Client } from '../test-client';

const COUNT = trials(3, 100);
const KILLS = trials(1, 5);
/** The weather changes so often, and the server is killed at random within so long, in milliseconds. */
const CHANGE = 1500;
const ALIVE = trials(6000, 30_000);
const OUTLETS = SHIPPED_SHEETS.map(({ outlet }) => outlet);

const random = seeded(SEED);
const pick = <T>(values: readonly T[]): T => values[Math.floor(random() * values.length)] as T;
const wait = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

describe('posts to four outlets in changing weather', () => {
  const server = new TestServer();
  afterAll(() => server.stop());

  it(`are each up once, or told why not: ${COUNT} of them, with ${KILLS} kills`, async () => {
    await server.start();
    const client = new Client(server.origin);
    const goods = Object.fromEntries(OUTLETS.map((outlet) => [outlet, goodPost(outlet)]));
    const accounts = new Map<string, string>();
    for (const outlet of OUTLETS)
      accounts.set(outlet, await signIn(client, outlet, pick(['odlin', 'windle'])));
    const order = async (n: number) => {
      const outlet = OUTLETS[n % OUTLETS.length]!;
      const { clip, words } = goods[outlet]!;
      const upload = await client.upload('/posting/api/uploads', clip);
      const asked = {
        ...{ id: createId(), upload, fileName: `${n}.mp4`, outlet, when: null },
        // Some are refused for what they are.
        ...{ account: accounts.get(outlet), words: { ...words, title: n % 7 === 6 ? ' ' : `Kite ${n}` } },
      };
      const headers = { 'content-type': 'application/json' };
      const body = JSON.stringify(asked);
      const response = await client.fetch('/posting/api/posts', { method: 'POST', headers, body });
      if (response.status !== 202) throw new Error(`an order was answered with ${response.status}`);
    };
    for (let n = 0; n < COUNT; n++) await order(n);

    const blow = async (outlet: string, weather: string) => {
      await client
        .fetch(`/outlets/${outlet}/weather`, { method: 'POST', body: new URLSearchParams({ weather }) })
        .catch(() => undefined);
    };
    for (let kill = 0; kill < KILLS; kill++) {
      const until = Date.now() + ALIVE * (0.3 + 0.7 * random());
      while (Date.now() < until) {
        await blow(pick(OUTLETS), pick(Object.keys(INJECTED_FAULTS).filter((name) => name !== 'failing')));
        await wait(CHANGE);
      }
      await server.stop('SIGKILL');
      await server.start();
    }
    for (const outlet of OUTLETS) await blow(outlet, 'fair');

    const list = async (): Promise<DispatchedPost[]> => {
      const ask = () => client.fetch('/posting/api/posts');
      // A connection may be left that the killed server had.
      const answer = await ask().catch(() => wait(500).then(ask));
      const { posts } = (await answer.json()) as { posts: unknown[] };
      return posts.map((post) => postedSchema.parse(post));
    };
    let posts = await list();
    const open = () => posts.filter(({ state }) => ['waiting', 'sending', 'processing'].includes(state));
    while (open().length > 0) {
      await wait(500);
      posts = await list();
    }
    expect(posts).toHaveLength(COUNT);
    const refused = posts.filter(({ state }) => state === 'refused');
    expect(refused.map(({ reasons }) => reasons)).toEqual(refused.map(() => ['The post has no title.']));
    const up = posts.filter(({ state }) => state === 'up');
    expect([up.length, refused.length]).toEqual([COUNT - Math.floor(COUNT / 7), Math.floor(COUNT / 7)]);
    let shown = 0;
    for (const outlet of OUTLETS) {
      const board = await (await client.fetch(`/outlets/${outlet}/`)).text();
      const titles = [...board.matchAll(/<h2><a[^>]*>([^<]*)</g)].map(([, title]) => title);
      expect(new Set(titles).size).toBe(titles.length);
      shown += titles.length;
    }
    expect(shown).toBe(up.length);
    soakFigure(
      'posts in changing weather',
      `${COUNT} to four outlets, ${KILLS} kills: ${up.length} up once, ${refused.length} refused with the reason`,
    );
  }, 3_600_000);
});
