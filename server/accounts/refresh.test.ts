import { mkdtempSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { OutletConnection } from '../posting/outlet-connection';
import { openDatabase } from '../store/database';
import { Secrets } from '../store/secrets';
import { AccountRecords } from './account-records';
import { AccountError, Accounts } from './accounts';
import { SignInRecords } from './sign-in-records';

const ID = 'a'.repeat(32);

/** An authorization server that drops so many answers, and grants nothing after that (RFC 6749, 5.2). */
async function openIssuer(dropped: number): Promise<{ origin: string; server: http.Server }> {
  let left = dropped;
  const server = http.createServer((request, response) => {
    const json = (status: number, body: object) =>
      response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body));
    if (request.method === 'GET')
      return json(200, { issuer: `${origin}/`, token_endpoint: `${origin}/token` });
    if (left-- > 0) return request.socket.destroy();
    return json(400, { error: 'invalid_grant' });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return { origin, server };
}

/** How an account stands once a token was asked for, as often as answers are dropped and once more. */
async function stateAfter(dropped: number): Promise<string | undefined> {
  const { origin, server } = await openIssuer(dropped);
  const data = mkdtempSync(path.join(tmpdir(), 'refresh-'));
  const database = openDatabase(data);
  const records = new AccountRecords(database, Secrets.open(data));
  const way = { abilities: () => Promise.resolve({ issuer: `${origin}/` }) } as OutletConnection;
  const accounts = new Accounts(records, new SignInRecords(database), {
    find: () => ({ way, client: { id: 'gusset', secret: 'secret' } }),
  });
  const account = { id: 'odlin', name: 'Odlin', kind: 'person', picture: null } as const;
  const tokens = { access: 'old', refresh: 'once', until: Date.now() };
  records.keep(ID, 'visitor', { outlet: 'verrow', account, scopes: [] }, tokens);
  for (let n = 0; n < dropped; n++)
    await expect(accounts.getToken(ID, origin)).rejects.not.toBeInstanceOf(AccountError);
  await expect(accounts.getToken(ID, origin)).rejects.toBeInstanceOf(AccountError);
  const { state } = records.find(ID, 'visitor')!;
  database.close();
  server.close();
  return state;
}

describe('a token that its outlet changes no more', () => {
  it('was taken back where that is its first answer', async () => {
    expect(await stateAfter(0)).toBe('withdrawn');
  });

  it('may have been changed where an answer was lost: then nobody says that it was taken back', async () => {
    expect(await stateAfter(1)).toBe('expired');
  });
});
