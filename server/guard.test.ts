import http from 'node:http';
import { CONVERT_ABILITY, CONVERT_UPLOADS } from '../src/core/convert/protocol';
import { Client, openTestServer, type TestServer } from './test-client';

let server: TestServer;
beforeAll(async () => {
  server = await openTestServer();
});
afterAll(() => server.close());

/** A request with any headers: `fetch` sets some of them itself. */
function ask(headers: Record<string, string>, method = 'GET', path = CONVERT_ABILITY): Promise<number> {
  const { port } = new URL(server.origin);
  return new Promise((resolve, reject) => {
    const request = http.request({ host: '127.0.0.1', port, path, method, headers }, (response) => {
      response.resume();
      resolve(response.statusCode ?? 0);
    });
    request.on('error', reject).end();
  });
}

describe('who is let in', () => {
  it.each(['localhost', '127.0.0.1', '[::1]', 'LOCALHOST', 'localhost:4100'])('%s as host', async (host) => {
    expect(await ask({ host })).toBe(200);
  });

  it.each(['example.test', 'localhost.example.test', '127.0.0.1.example.test:80', '10.0.0.1'])(
    'not “%s”, a name that somebody pointed here',
    async (host) => {
      expect(await ask({ host })).toBe(421);
    },
  );

  it.each([
    ['a page of another origin', { origin: 'http://example.test' }],
    ['a page of another port', { origin: 'http://localhost:9', host: 'localhost:4100' }],
    ['a sandboxed page', { origin: 'null' }],
    ['what another site fetches', { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'no-cors' }],
    ['what another port fetches', { 'sec-fetch-site': 'same-site', 'sec-fetch-mode': 'cors' }],
    [
      'a frame of another site',
      { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'iframe' },
    ],
  ])('not %s', async (_, headers) => {
    const local = { host: 'localhost:4100', ...headers };
    expect(await ask(local)).toBe(403);
    expect(
      await ask({ ...local, 'tus-resumable': '1.0.0', 'upload-length': '5' }, 'POST', CONVERT_UPLOADS),
    ).toBe(403);
  });

  it('a link from elsewhere, but no form', async () => {
    const link = {
      host: 'localhost',
      'sec-fetch-site': 'cross-site',
      'sec-fetch-mode': 'navigate',
      'sec-fetch-dest': 'document',
    };
    expect(await ask(link, 'GET', '/outlets/verrow/')).toBe(200);
    expect(await ask(link, 'POST', CONVERT_UPLOADS)).toBe(403);
  });
});

describe('addresses', () => {
  it('of ids have one shape: nothing else is looked up', async () => {
    const odd = [
      'x.json',
      '%2e%2e%2fgusset.db',
      '%00',
      '%',
      '%ff',
      'ü',
      ' ',
      `${'a'.repeat(32)}.json`,
      'A'.repeat(32),
      'x'.repeat(5000),
    ];
    const client = new Client(server.origin);
    const upload = await client.upload(CONVERT_UPLOADS, Buffer.from('12345'));
    for (const id of [...odd, `${upload}.json`]) {
      for (const method of ['GET', 'HEAD', 'DELETE', 'PATCH', 'POST']) {
        const headers = { host: 'localhost', 'tus-resumable': '1.0.0' };
        for (const address of [
          `${CONVERT_UPLOADS}/${id}`,
          `/convert/jobs/${id}`,
          `/outlets/verrow/clips/${id}.mp4`,
        ]) {
          const status = await ask(headers, method, encodeURI(address).replace(/%25/g, '%'));
          expect([Math.floor(status / 100), address]).toEqual([4, address]);
        }
      }
    }
    expect((await client.head(`${CONVERT_UPLOADS}/${upload}`)).headers.get('upload-offset')).toBe('5');
  });

  it('of an upload are forgotten with it', async () => {
    const client = new Client(server.origin);
    const upload = await client.upload(CONVERT_UPLOADS, Buffer.from('12345'));
    const headers = { 'tus-resumable': '1.0.0' };
    const address = `${CONVERT_UPLOADS}/${upload}`;
    expect((await client.fetch(address, { method: 'DELETE', headers })).status).toBe(204);
    expect((await client.head(address)).status).toBe(404);
  });
});
