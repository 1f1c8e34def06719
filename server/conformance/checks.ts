import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import {
  type Abilities,
  KEY_HEADER,
  OUTLET_API,
  outletErrorSchema,
  type OutletPost,
  outletPostSchema,
} from '../../src/core/outlets/outlet-api';
import type { PostForm, PostWords } from '../../src/core/outlets/post-form';
import { createHttpConnection } from '../posting/http-connection';

/** Account and clip that an outlet is tried with. */
export interface TestTarget {
  /** Its address, without a slash at the end. */
  root: string;
  /** Of an account that allowed all. */
  token: string;
  /** A clip that it takes, and words for it. */
  clip: Uint8Array<ArrayBuffer>;
  words: PostWords;
  /** How long a post may be processed, in milliseconds. */
  patience: number;
}

/**
 * A check of one demand of the contract. It throws where the outlet does not meet it.
 */
export interface Check {
  name: string;
  /** Tells whether the check applies, by the abilities that the outlet states. */
  applies?: (abilities: Abilities, tried: TestTarget) => boolean;
  run(tried: TestTarget): Promise<void>;
}

/** Something is not as the contract says. */
class ContractError extends Error {}

function demand(holds: boolean, otherwise: string): asserts holds {
  if (!holds) throw new ContractError(otherwise);
}

const openWay = (root: string) => createHttpConnection({ root, pagesRoot: root });

const TUS = { 'tus-resumable': '1.0.0' };
const MAKES_NO_SENSE = 'f'.repeat(32);

const ask = (
  { root, token }: Pick<TestTarget, 'root' | 'token'>,
  address: string,
  { headers, ...init }: RequestInit & { headers?: Record<string, string> } = {},
) =>
  fetch(new URL(address.startsWith('http') ? address : `${root}${address}`), {
    ...init,
    redirect: 'manual',
    headers: { authorization: `Bearer ${token}`, ...headers },
  });

const withBody = (method: string, body: unknown, headers: Record<string, string> = {}) => ({
  ...{ method, headers: { 'content-type': 'application/json', ...headers }, body: JSON.stringify(body) },
});

const sendPost = (tried: TestTarget, upload: string, key: string, more: Partial<PostForm> = {}) =>
  ask(tried, OUTLET_API.posts, withBody('POST', { ...tried.words, ...more, upload }, { [KEY_HEADER]: key }));

/** That an answer has a status, and says why in the contract's own words. */
async function expectRefusal(response: Response, status: number, error: string): Promise<void> {
  demand(response.status === status, `answered ${response.status}, not ${status}`);
  const said = outletErrorSchema.safeParse(await response.json().catch(() => null));
  demand(said.success && said.data.error === error, `the body does not say "${error}"`);
}

/** Begins an upload. @returns its whole address. */
async function beginPost(tried: TestTarget): Promise<string> {
  const response = await ask(tried, OUTLET_API.uploads, {
    method: 'POST',
    headers: { ...TUS, 'upload-length': String(tried.clip.length) },
  });
  demand(response.status === 201, `an upload was answered with ${response.status}, not 201`);
  const address = new URL(response.headers.get('location') ?? '', `${tried.root}${OUTLET_API.uploads}`);
  demand(address.origin === new URL(tried.root).origin, 'an upload’s address is on another host');
  return address.href;
}

const patch = (tried: TestTarget, address: string, offset: number, to: number) =>
  ask(tried, address, {
    method: 'PATCH',
    headers: { ...TUS, 'upload-offset': String(offset), 'content-type': 'application/offset+octet-stream' },
    body: tried.clip.slice(offset, to),
  });

/** Sends the whole clip. @returns what a post names it by. */
async function uploadClip(tried: TestTarget): Promise<string> {
  const address = await beginPost(tried);
  const { status } = await patch(tried, address, 0, tried.clip.length);
  demand(status === 204, `a piece was answered with ${status}, not 204`);
  return address.split('/').pop() ?? '';
}

/** Waits until the outlet is done with a post. */
async function waitForPost(tried: TestTarget, response: Response): Promise<OutletPost> {
  demand(response.status === 202, `a post was answered with ${response.status}, not 202`);
  let post = outletPostSchema.parse(await response.json());
  const way = openWay(tried.root);
  const late = Date.now() + tried.patience;
  while (post.state === 'processing') {
    demand(Date.now() < late, 'a post is processed without end');
    await wait(300);
    post = await way.stateOf(tried.token, post.id);
  }
  return post;
}

/** Posts the clip, and takes it down after something was done with it. */
async function withPost(
  tried: TestTarget,
  act: (post: OutletPost & { state: 'up' }) => Promise<void>,
  more: Partial<PostForm> = {},
): Promise<void> {
  const post = await waitForPost(tried, await sendPost(tried, await uploadClip(tried), randomUUID(), more));
  demand(post.state === 'up', `the clip is ${post.state}: ${JSON.stringify(post)}`);
  try {
    await act(post);
  } finally {
    await openWay(tried.root).takeDown(tried.token, post.id);
  }
}

/** Tells whether a clip can be private where it is tried. */
const hasDrafts = ({ drafts }: Abilities, { words }: TestTarget): boolean => drafts.includes(words.placement);

/** All that the contract asks for (`docs/outlet-api.yaml`). */
export const CHECKS: readonly Check[] = [
  {
    name: 'says what it can do',
    async run({ root }) {
      await openWay(root).abilities();
    },
  },
  {
    name: 'has an authorization server with codes, PKCE by S256, and its name in its answers (RFC 7636, 9207)',
    async run({ root }) {
      const { issuer } = await openWay(root).abilities();
      const response = await fetch(`${issuer}/.well-known/openid-configuration`);
      demand(response.ok, `its metadata were answered with ${response.status}`);
      const said = (await response.json()) as Partial<Record<string, unknown>>;
      const has = (name: string, value: string) =>
        ((said[name] as string[] | undefined) ?? []).includes(value);
      demand(said.issuer === issuer, 'its metadata name another issuer');
      demand(has('response_types_supported', 'code'), 'it gives no codes');
      demand(has('code_challenge_methods_supported', 'S256'), 'it knows no PKCE by S256');
      demand(said.authorization_response_iss_parameter_supported === true, 'its answers do not name it');
      for (const name of ['authorization_endpoint', 'token_endpoint', 'revocation_endpoint'])
        demand(typeof said[name] === 'string', `it has no ${name}`);
    },
  },
  {
    name: 'lets nobody in without a good token, and says so as RFC 6750 has it',
    async run(tried) {
      for (const token of ['', 'made-up']) {
        const response = await ask({ ...tried, token }, OUTLET_API.account);
        demand(/^Bearer/.test(response.headers.get('www-authenticate') ?? ''), 'no WWW-Authenticate');
        await expectRefusal(response, 401, 'token');
      }
      const begins = { method: 'POST', headers: { ...TUS, 'upload-length': '9' } };
      const { status } = await ask({ ...tried, token: 'made-up' }, OUTLET_API.uploads, begins);
      demand(status === 401, `an upload without a token was answered with ${status}`);
    },
  },
  {
    name: 'says whose token it is',
    async run({ root, token }) {
      await openWay(root).account(token);
    },
  },
  {
    name: 'goes on with an upload from where it broke off, and from nowhere else (tus 1.0.0)',
    async run(tried) {
      const address = await beginPost(tried);
      const half = Math.floor(tried.clip.length / 2);
      demand((await patch(tried, address, 0, half)).status === 204, 'a piece was not taken');
      demand((await patch(tried, address, 0, half)).status === 409, 'a piece was taken twice');
      const head = await ask(tried, address, { method: 'HEAD', headers: TUS });
      demand(head.headers.get('upload-offset') === String(half), 'it does not say how far an upload is');
      await expectRefusal(
        await sendPost(tried, address.split('/').pop() ?? '', randomUUID()),
        409,
        'partial-upload',
      );
      demand((await patch(tried, address, half, tried.clip.length)).status === 204, 'it does not go on');
    },
  },
  {
    name: 'takes no post of an upload that is not there, at a placement that is not, or without a key',
    async run(tried) {
      await expectRefusal(await sendPost(tried, MAKES_NO_SENSE, randomUUID()), 404, 'no-upload');
      const nowhere = { placement: 'nowhere' };
      await expectRefusal(
        await sendPost(tried, await uploadClip(tried), randomUUID(), nowhere),
        404,
        'no-placement',
      );
      await expectRefusal(await sendPost(tried, MAKES_NO_SENSE, ''), 400, 'bad-request');
    },
  },
  {
    name: 'posts a clip once, however often it is asked for with one key',
    async run(tried) {
      const [upload, key] = [await uploadClip(tried), randomUUID()];
      const posts = await Promise.all(
        [1, 2, 3].map(async () => waitForPost(tried, await sendPost(tried, upload, key))),
      );
      const ids = new Set(posts.map(({ id }) => id));
      for (const id of ids) await openWay(tried.root).takeDown(tried.token, id);
      demand(ids.size === 1, `one key made ${ids.size} posts`);
      demand(posts[0]?.state === 'up', `the clip is ${posts[0]?.state}: ${JSON.stringify(posts[0])}`);
    },
  },
  {
    name: 'takes a key for one post alone',
    async run(tried) {
      const key = randomUUID();
      const post = await waitForPost(tried, await sendPost(tried, await uploadClip(tried), key));
      const other = await sendPost(tried, await uploadClip(tried), key, { title: 'Another' });
      await openWay(tried.root).takeDown(tried.token, post.id);
      await expectRefusal(other, 422, 'key-used');
    },
  },
  {
    name: 'refuses what is no film, with a reason',
    async run(tried) {
      const clip = new TextEncoder().encode('words only, and no film at all');
      const post = await waitForPost(
        tried,
        await sendPost(tried, await uploadClip({ ...tried, clip }), randomUUID()),
      );
      demand(post.state === 'refused', `what is no film is ${post.state}`);
    },
  },
  {
    name: 'changes who may see a post, and takes it down',
    async run(tried) {
      const way = openWay(tried.root);
      let id = '';
      await withPost(tried, async (post) => {
        ({ id } = post);
        if (post.audience === 'public' && !hasDrafts(await way.abilities(), tried)) {
          const change = withBody('PATCH', { audience: 'private' });
          return expectRefusal(await ask(tried, OUTLET_API.post(id), change), 400, 'bad-request');
        }
        const other = post.audience === 'public' ? 'private' : 'public';
        const changed = await way.setAudience(tried.token, id, other);
        demand(changed.state === 'up' && changed.audience === other, 'who may see it did not change');
      });
      await expectRefusal(await ask(tried, OUTLET_API.post(id)), 404, 'no-post');
    },
  },
  {
    name: 'keeps a clip for its account alone until it is published',
    applies: hasDrafts,
    run: (tried) =>
      withPost(
        tried,
        ({ audience }) => {
          demand(audience === 'private', `a private post is ${audience}`);
          return Promise.resolve();
        },
        { audience: 'private' },
      ),
  },
  {
    name: 'shows a clip to nobody else before the time that it is told, and at once where that is gone by',
    applies: ({ schedule }) => schedule,
    async run(tried) {
      for (const [hours, isShown] of [
        [1, false],
        [-1, true],
      ] as const)
        await withPost(
          tried,
          ({ audience }) => {
            demand((audience !== 'private') === isShown, `${hours} h from now, and it is ${audience}`);
            return Promise.resolve();
          },
          { audience: 'public', publishAt: new Date(Date.now() + hours * 3_600_000).toISOString() },
        );
    },
  },
  {
    name: 'gives what a viewer gets',
    applies: ({ viewed }) => viewed,
    run: (tried) =>
      withPost(tried, async ({ id, viewed }) => {
        const response = await ask(tried, OUTLET_API.viewed(id));
        demand(response.ok, `it was answered with ${response.status}`);
        const { byteLength } = await response.arrayBuffer();
        demand(byteLength === viewed?.bytes, `${byteLength} bytes came, and it says ${viewed?.bytes}`);
      }),
  },
  {
    name: 'tells the collections of an account',
    applies: ({ collections }) => collections,
    async run({ root, token }) {
      await openWay(root).collections(token);
    },
  },
  {
    name: 'finds long videos',
    applies: ({ longVideos }) => longVideos,
    async run({ root, token }) {
      const all = await openWay(root).longVideos(token, '');
      const none = await openWay(root).longVideos(token, 'nothing has this in its title at all');
      demand(none.length === 0 || none.length < all.length, 'a search finds all there is');
    },
  },
];

/** How one check went. */
export interface Result {
  name: string;
  state: 'passed' | 'failed' | 'not there';
  why: string | null;
}

/** Tries an outlet. @param tell is told each result as it is there. */
export async function checkOutlet(tried: TestTarget, tell: (result: Result) => void): Promise<Result[]> {
  const abilities = await openWay(tried.root)
    .abilities()
    .catch(() => null);
  const results: Result[] = [];
  for (const { name, applies, run } of CHECKS) {
    const result: Result = { name, state: 'passed', why: null };
    if (applies && (!abilities || !applies(abilities, tried))) result.state = 'not there';
    else
      await run(tried).catch((error: unknown) => {
        result.state = 'failed';
        result.why = error instanceof Error ? error.message : String(error);
      });
    results.push(result);
    tell(result);
  }
  return results;
}
