import { mkdtempSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import express from 'express';
import { accountPicturePath, SIGN_IN_BACK } from '../../src/core/posting/accounts';
import { type DispatchedPost, postedSchema } from '../../src/core/posting/post-order';
import { SHIPPED_SHEETS } from '../../src/core/outlets/shipped';
import { goodPost } from '../../tests/good-post';
import { signIn } from '../../tests/sign-in';
import { createId } from '../store/create-id';
import { Client, openTestServer, type TestServer } from '../test-client';
import { closeWorkshop, endPrograms, openWorkshop, type Workshop } from '../workshop';
import { OutletsFileError, readOutletsElsewhere } from './elsewhere';
import { plainOutlet } from './outlet';
import { addStandIn, type StandIn } from './stand-in/stand-in';

const CLIENT = { id: 'another-server', secret: 'what only it and the outlet know' };
const OUTLET = 'verrow';

describe('an outlet at an address of its own', () => {
  let outlet: { root: string; http: http.Server; standIn: StandIn; workshop: Workshop };
  let server: TestServer;
  let client: Client;

  beforeAll(async () => {
    const workshop = await openWorkshop(mkdtempSync(path.join(tmpdir(), 'elsewhere-')));
    const app = express();
    const standIn = addStandIn(
      app,
      {
        sheet: SHIPPED_SHEETS.find((sheet) => sheet.outlet === OUTLET)!,
        traits: plainOutlet(OUTLET).standIn,
        client: { ...CLIENT, name: 'Another server', backFrom: () => `${server.origin}${SIGN_IN_BACK}` },
      },
      workshop,
    );
    const listener = http.createServer(app);
    await new Promise<void>((resolve) => listener.listen(0, '127.0.0.1', resolve));
    const root = `http://127.0.0.1:${(listener.address() as AddressInfo).port}/outlets/${OUTLET}`;
    outlet = { root, http: listener, standIn, workshop };
    server = await openTestServer(undefined, { elsewhere: { [OUTLET]: { root, client: CLIENT } } });
    client = new Client(server.origin);
  });
  afterAll(async () => {
    await server.close();
    outlet.http.close();
    outlet.http.closeAllConnections();
    endPrograms(outlet.workshop);
    await outlet.standIn.posts.settled();
    await closeWorkshop(outlet.workshop);
  });

  it('is signed in to and posted to, and its pages and pictures are its own', async () => {
    const account = await signIn(client, OUTLET, 'odlin');
    const picture = await client.fetch(accountPicturePath(account));
    expect([picture.status, picture.headers.get('content-type')]).toEqual([
      200,
      'image/svg+xml; charset=utf-8',
    ]);
    expect(await picture.text()).toMatch(/^<svg/);
    // Another browser has no such account.
    expect((await new Client(server.origin).fetch(accountPicturePath(account))).status).toBe(404);

    const { clip, words } = goodPost(OUTLET);
    const upload = await client.upload('/posting/api/uploads', clip);
    const order = {
      id: createId(),
      upload,
      fileName: 'kite.mp4',
      outlet: OUTLET,
      account,
      words,
      when: null,
    };
    const response = await client.fetch('/posting/api/posts', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(order),
    });
    expect(response.status).toBe(202);
    const up = await whenUp();
    expect(up.page).toMatch(`${outlet.root}/posts/`);
    const page = await fetch(up.page ?? '');
    expect([page.status, await page.text()]).toEqual([200, expect.stringContaining('A kite')]);
  });

  it('has no stand-in beside it, and the others have theirs', async () => {
    const [gone, there] = await Promise.all(
      [OUTLET, 'tesselle'].map(async (one) => (await client.fetch(`/outlets/${one}/`)).status),
    );
    expect([gone, there]).toEqual([404, 200]);
    expect((await client.fetch('/posting/api/outlets/nowhere/abilities')).status).toBe(404);
  });

  async function whenUp(): Promise<DispatchedPost> {
    for (;;) {
      const { posts } = (await (await client.fetch('/posting/api/posts')).json()) as { posts: unknown[] };
      const [post] = posts.map((one) => postedSchema.parse(one));
      if (post?.state === 'up') return post;
      expect(['waiting', 'sending', 'processing']).toContain(post?.state);
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  }
});

describe('a file of outlets that are elsewhere', () => {
  const written = (text: string): string => {
    const file = path.join(mkdtempSync(path.join(tmpdir(), 'outlets-')), 'outlets.json');
    writeFileSync(file, text);
    return file;
  };
  const one = (more: object) =>
    JSON.stringify({ verrow: { root: 'https://outlet.example/v', client: CLIENT, ...more } });

  it('is read', () => {
    expect(readOutletsElsewhere(written(one({})))).toMatchObject({
      verrow: { root: 'https://outlet.example/v' },
    });
  });

  it.each([
    ['one that is not there', '/nowhere/outlets.json', 'cannot be read'],
    ['one that is no JSON', written('{'), 'is not JSON'],
    ['an address that is none', written(one({ root: 'outlet' })), 'it is no web address'],
    ['an address of files', written(one({ root: 'file:///etc' })), 'it is no web address'],
    ['a slash at the end', written(one({ root: 'https://outlet.example/' })), 'it ends with a slash'],
    [
      'a way that others read',
      written(one({ root: 'http://outlet.example' })),
      'neither https nor on this machine',
    ],
    ['a value that nobody knows', written(one({ port: 80 })), 'port'],
    ['no client', written(one({ client: undefined })), 'client'],
  ])('is refused with the reason: %s', (_, file, reason) => {
    expect(() => readOutletsElsewhere(file)).toThrow(OutletsFileError);
    expect(() => readOutletsElsewhere(file)).toThrow(reason);
  });
});
