import { readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import {
  conversionPath,
  conversionSchema,
  CONVERT_UPLOADS,
  convertedPath,
} from '../src/core/convert/protocol';
import { hostileZoo } from './hostile-zoo';
import { sweep } from './sweep';
import { Client, FORM, openTestServer, type TestServer } from './test-client';

const UPLOADS = '/outlets/verrow/api/uploads';
/** Longest that somebody else may wait meanwhile, in milliseconds. */
const PATIENCE = 5000;
const zoo = hostileZoo();
let server: TestServer;
let client: Client;
let longestWait = 0;
let asking = true;
let asker: Promise<void>;

/** Files in a folder and below it. */
function filesIn(folder: string): string[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((name) =>
    statSync(path.join(folder, name)).isFile(),
  );
}

beforeAll(async () => {
  server = await openTestServer();
  client = await new Client(server.origin).signIn('verrow');
  const other = new Client(server.origin);
  asker = (async () => {
    while (asking) {
      const from = performance.now();
      await (await other.fetch('/outlets/verrow/')).text();
      longestWait = Math.max(longestWait, performance.now() - from);
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  })();
});
afterAll(async () => {
  asking = false;
  await asker;
  await server.close();
});

describe('a hostile upload', () => {
  it('comes in at least thirty forms, none of them large', () => {
    expect(zoo.length).toBeGreaterThanOrEqual(30);
    expect(zoo.filter(({ bytes }) => bytes.length > 1e6)).toEqual([]);
  });

  it.each(zoo)('is not taken by an outlet: $name', async ({ bytes }) => {
    const upload = await client.upload(UPLOADS, bytes);
    expect((await client.posted('verrow', { ...FORM, upload })).state).toBe('refused');
  });

  it.each(zoo)('is not converted: $name', async ({ bytes }) => {
    const id = await client.upload(CONVERT_UPLOADS, bytes);
    for (let method = 'POST'; ; method = 'GET') {
      const now = conversionSchema.parse(await (await client.fetch(conversionPath(id), { method })).json());
      if (now.state === 'failed') break;
      expect(now.state).not.toBe('done');
      await new Promise((resolve) => setTimeout(resolve, 30));
    }
    expect((await client.fetch(convertedPath(id))).status).toBe(404);
  });

  it('keeps nobody else waiting, and leaves nothing behind', async () => {
    expect(longestWait).toBeGreaterThan(0);
    expect(longestWait).toBeLessThan(PATIENCE);
    await sweep(server.swept, Date.now() + 48 * 3600 * 1000);
    expect(filesIn(server.data).filter((name) => !/^(gusset\.(db|lock)|keys\.json)/.test(name))).toEqual([]);
    expect(await (await client.fetch('/outlets/verrow/')).text()).toContain('Nothing is posted here');
  });
});
