import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { SHIPPED_SHEETS } from '../../src/core/outlets/shipped';
import { goodPost } from '../../tests/good-post';
import { outletToken } from '../../tests/sign-in';
import { drawn } from '../../tests/soak';
import { Client, openTestServer, type TestServer } from '../test-client';
import { CHECKS, checkOutlet } from './checks';

let server: TestServer;
beforeAll(async () => {
  server = await openTestServer();
});
afterAll(() => server.close());

describe('an outlet that keeps the contract', () => {
  const outlets = SHIPPED_SHEETS.map(({ outlet }) => outlet);
  it.each(drawn(outlets, 1))(
    'is found to: %s',
    async (outlet) => {
      const token = await outletToken(new Client(server.origin), outlet);
      const tried = {
        root: `${server.origin}/outlets/${outlet}`,
        token,
        // An outlet compresses what it takes, on a machine that may be busy.
        patience: 300_000,
        ...goodPost(outlet),
      };
      const results = await checkOutlet(tried, () => undefined);
      expect(results.filter(({ state }) => state === 'failed')).toEqual([]);
      expect(results.filter(({ state }) => state === 'passed').length).toBeGreaterThan(CHECKS.length - 4);
    },
    1_800_000,
  );
});

describe('an outlet that does not', () => {
  it('is told of, check by check', async () => {
    const other = http.createServer((_request, response) => response.end('{"all":"is well"}'));
    await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve));
    const { port } = other.address() as AddressInfo;
    const root = `http://127.0.0.1:${port}`;
    const results = await checkOutlet(
      { root, token: 'any', patience: 1000, ...goodPost('verrow') },
      () => undefined,
    );
    other.close();
    expect(results.filter(({ state }) => state === 'passed')).toEqual([]);
    expect(results.filter(({ state }) => state === 'failed').length).toBeGreaterThan(8);
  });
});
