import { readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import type { Account } from '../../src/core/posting/accounts';
import { beginSignIn, fillIn, follow, signIn } from '../../tests/sign-in';
import { openDatabase } from '../store/database';
import { Secrets } from '../store/secrets';
import { Client, openTestServer, type TestServer } from '../test-client';

let server: TestServer;
let client: Client;
beforeEach(async () => {
  server = await openTestServer();
  client = new Client(server.origin);
});
afterEach(() => server.close());

const accountsOf = async (who: Client): Promise<Account[]> =>
  ((await (await who.fetch('/posting/api/accounts')).json()) as { accounts: Account[] }).accounts;
const isBack = (to: URL): boolean => to.pathname === '/posting/back';
/** Where a browser that came back is sent to. */
const endOf = async (who: Client, back: URL): Promise<string> =>
  (await who.fetch(back.href, { redirect: 'manual' })).headers.get('location') ?? '';
/** Looks at the server's database from outside. */
function inDatabase<T>(act: (database: ReturnType<typeof openDatabase>) => T): T {
  const database = openDatabase(server.data);
  try {
    return act(database);
  } finally {
    database.close();
  }
}

describe('signing in to an outlet', () => {
  it('gives an account to post as, and comes back to the page where it was begun', async () => {
    const go = await beginSignIn(client, 'verrow', '/job/kite-day/post?clip=1');
    const back = await fillIn(client, go, { login: 'odlin' }, isBack);
    const end = await endOf(client, back);
    const [account] = await accountsOf(client);
    expect(end).toBe(`/job/kite-day/post?clip=1&signed-in=${account?.id}`);
    expect(account).toEqual({
      id: expect.stringMatching(/^[0-9a-f]{32}$/),
      outlet: 'verrow',
      account: { id: 'odlin', name: 'Odlin Marrable', kind: 'person', picture: '/pictures/odlin.svg' },
      scopes: ['read', 'post'],
      state: 'good',
    });
  });

  it('gives several accounts of an outlet, and each once', async () => {
    const first = await signIn(client, 'verrow', 'odlin');
    const second = await signIn(client, 'verrow', 'windle');
    expect(await signIn(client, 'verrow', 'odlin')).toBe(first);
    expect((await accountsOf(client)).map(({ id }) => id)).toEqual([first, second]);
    expect(await accountsOf(new Client(server.origin))).toEqual([]);
  });

  it('says what was not allowed, and what was refused', async () => {
    const some = await fillIn(
      client,
      await beginSignIn(client, 'verrow'),
      { login: 'fen', scopes: ['read'] },
      isBack,
    );
    await endOf(client, some);
    expect(await accountsOf(client)).toMatchObject([{ scopes: ['read'], state: 'good' }]);
    const none = await fillIn(
      client,
      await beginSignIn(client, 'verrow'),
      { login: 'fen', act: 'refuse' },
      isBack,
    );
    expect(await endOf(client, none)).toBe('/accounts?fault=refused');
  });

  it('lets nobody guess passwords on and on', async () => {
    const page = await follow(client, await beginSignIn(client, 'verrow'), (to) =>
      to.pathname.includes('/sign-in/'),
    );
    const guess = async () => {
      const body = new URLSearchParams({ login: 'odlin', password: 'guess', act: 'allow' });
      return (await client.fetch(page.href, { method: 'POST', body })).status;
    };
    const answers: number[] = [];
    for (let n = 0; n < 12; n++) answers.push(await guess());
    expect(answers).toEqual([...Array<number>(10).fill(401), 429, 429]);
  });

  it('is begun for outlets that are there, and for pages of the app alone', async () => {
    const begin = async (outlet: string, back: string) => {
      const body = JSON.stringify({ outlet, back });
      const headers = { 'content-type': 'application/json' };
      return (await client.fetch('/posting/api/sign-ins', { method: 'POST', headers, body })).status;
    };
    expect(await begin('nowhere', '/accounts')).toBe(404);
    for (const back of [
      '//elsewhere.example',
      '/\\elsewhere.example',
      'https://elsewhere.example/',
      'javascript:1',
      '',
    ])
      expect([back, await begin('verrow', back)]).toEqual([back, 422]);
  });
});

describe('an attack on a sign-in', () => {
  const faultOf = async (who: Client, back: URL) => /fault=(.+)$/.exec(await endOf(who, back))?.[1];

  it('with an answer of another outlet is refused (RFC 9207)', async () => {
    const ours = await beginSignIn(client, 'tesselle');
    const theirs = await fillIn(client, await beginSignIn(client, 'verrow'), { login: 'odlin' }, isBack);
    theirs.searchParams.set('state', new URL(ours).searchParams.get('state') ?? '');
    expect(await faultOf(client, theirs)).toBe('mixed-up');
    expect(await accountsOf(client)).toEqual([]);
  });

  it('with an answer that was used, or a code that was, is refused', async () => {
    const back = await fillIn(client, await beginSignIn(client, 'verrow'), { login: 'odlin' }, isBack);
    expect(await endOf(client, back)).toMatch(/signed-in=/);
    expect(await faultOf(client, back)).toBe('stale');
    const again = new URL(await beginSignIn(client, 'verrow'));
    back.searchParams.set('state', again.searchParams.get('state') ?? '');
    expect(await faultOf(client, back)).toBe('not-verified');
  });

  it('with a state that nobody began, or that another browser did, is refused', async () => {
    const back = await fillIn(client, await beginSignIn(client, 'verrow'), { login: 'odlin' }, isBack);
    const made = new URL(back);
    made.searchParams.set('state', 'made-up');
    expect(await faultOf(client, made)).toBe('stale');
    const other = new Client(server.origin);
    await beginSignIn(other, 'verrow');
    expect(await faultOf(other, back)).toBe('not-yours');
    expect(await faultOf(client, back)).toBe('stale');
    expect(await accountsOf(other)).toEqual([]);
  });

  it.each([
    ['verifier', 'x'.repeat(43)],
    ['nonce', 'another'],
  ])('with another %s is refused', async (what, value) => {
    const back = await fillIn(client, await beginSignIn(client, 'verrow'), { login: 'odlin' }, isBack);
    inDatabase((database) => database.prepare(`update sign_ins set ${what} = ?`).run([value]));
    expect(await faultOf(client, back)).toBe('not-verified');
    expect(await accountsOf(client)).toEqual([]);
  });

  it.each<[string, (go: URL) => void]>([
    [
      'another address to come back to',
      (go) => go.searchParams.set('redirect_uri', 'https://elsewhere.example/'),
    ],
    ['no proof of the code', (go) => go.searchParams.delete('code_challenge')],
    ['a plain proof of the code', (go) => go.searchParams.set('code_challenge_method', 'plain')],
  ])('with %s is refused by the outlet', async (_, change) => {
    const go = new URL(await beginSignIn(client, 'verrow'));
    change(go);
    const response = await client.fetch(go.href, { redirect: 'manual' });
    const to = response.headers.get('location');
    expect(to === null ? response.status : new URL(to).searchParams.get('error')).toEqual(
      to === null ? 400 : 'invalid_request',
    );
    expect(to ?? '').not.toContain('elsewhere');
  });

  it('by an outlet that names another account than its token is for, is refused', async () => {
    const { directory } = server.swept.posting;
    const real = directory.find.bind(directory);
    const lie = { id: 'windle', name: 'Somebody else', kind: 'person', picture: null } as const;
    jest.spyOn(directory, 'find').mockImplementation((outlet, origin) => {
      const found = real(outlet, origin);
      return found && { ...found, way: { ...found.way, account: () => Promise.resolve(lie) } };
    });
    const back = await fillIn(client, await beginSignIn(client, 'verrow'), { login: 'odlin' }, isBack);
    expect(await endOf(client, back)).toBe('/accounts?fault=not-verified');
    expect(await accountsOf(client)).toEqual([]);
  });

  it('with an answer that comes too late is refused', async () => {
    const back = await fillIn(client, await beginSignIn(client, 'verrow'), { login: 'odlin' }, isBack);
    inDatabase((database) => database.prepare('update sign_ins set made_at = 0').run([]));
    expect(await faultOf(client, back)).toBe('stale');
  });
});

describe('tokens', () => {
  it('never come to the page, and lie encrypted, each for its account alone', async () => {
    const id = await signIn(client, 'verrow', 'odlin');
    const { tokens } = inDatabase(
      (database) =>
        database.prepare('select tokens from accounts where id = ?').get([id]) as { tokens: string },
    );
    const secrets = Secrets.open(server.data);
    const { access, refresh } = JSON.parse(secrets.unseal(tokens, id)) as { access: string; refresh: string };
    const told = await (await client.fetch('/posting/api/accounts')).text();
    for (const token of [access, refresh]) {
      expect(token.length).toBeGreaterThan(20);
      expect(told).not.toContain(token);
    }
    expect(() => secrets.unseal(tokens, 'f'.repeat(32))).toThrow();
    const changed = Buffer.from(tokens, 'base64');
    changed[20]! ^= 1;
    expect(() => secrets.unseal(changed.toString('base64'), id)).toThrow();
    expect(statSync(path.join(server.data, 'keys.json')).mode & 0o777).toBe(0o600);
    expect(readFileSync(path.join(server.data, 'gusset.db'), 'latin1')).not.toContain(access);
  });

  it('are known by a mark that no script can read', async () => {
    const response = await client.fetch('/posting/api/sign-ins', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ outlet: 'verrow', back: '/accounts' }),
    });
    expect(response.headers.get('set-cookie')).toMatch(
      /gusset_posting=[0-9a-f]{32};.*Path=\/posting;.*HttpOnly; SameSite=Lax/,
    );
  });

  it('are let go at the outlet too when their account is', async () => {
    const id = await signIn(client, 'verrow', 'odlin');
    const other = new Client(server.origin);
    await signIn(other, 'verrow', 'odlin');
    await other.fetch(`/posting/api/accounts/${id}`, { method: 'DELETE' });
    expect(await accountsOf(client)).toHaveLength(1);
    const refreshTokens = () =>
      inDatabase(
        (database) => database.prepare(`select id from grants where kind = 'RefreshToken'`).all([]).length,
      );
    expect(refreshTokens()).toBe(2);
    await client.fetch(`/posting/api/accounts/${id}`, { method: 'DELETE' });
    expect(await accountsOf(client)).toEqual([]);
    expect(refreshTokens()).toBe(1);
  });
});
