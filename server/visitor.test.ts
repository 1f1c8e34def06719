import { createHash } from 'node:crypto';
import { cpSync, mkdtempSync, readFileSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import Sqlite from 'libsql';
import { signIn } from '../tests/sign-in';
import { openDatabase } from './store/database';
import { Client, openTestServer } from './test-client';

const POSTING = 'gusset_posting';
const ACCOUNTS = '/posting/api/accounts';

describe('the mark that a browser is known by', () => {
  it('is stored as a hash alone, in a folder that nobody else enters', async () => {
    const server = await openTestServer();
    const client = new Client(server.origin);
    await signIn(client, 'verrow', 'odlin');
    const mark = client.cookie(POSTING) ?? '';
    expect(mark).toMatch(/^[0-9a-f]{32}$/);
    expect(statSync(server.data).mode & 0o777).toBe(0o700);
    const copy = mkdtempSync(path.join(tmpdir(), 'copy-'));
    cpSync(server.data, copy, { recursive: true });
    await server.close();
    for (const name of ['gusset.db', 'gusset.db-wal'])
      expect(readFileSync(path.join(copy, name)).includes(mark)).toBe(false);
  });

  it('is another after signing in, and the old one is nobody’s', async () => {
    const server = await openTestServer();
    const client = new Client(server.origin);
    await signIn(client, 'verrow', 'odlin');
    const before = client.cookie(POSTING) ?? '';
    await signIn(client, 'verrow', 'windle');
    expect(client.cookie(POSTING)).not.toBe(before);
    const accounts = async (cookie: string) => {
      const response = await fetch(`${server.origin}${ACCOUNTS}`, { headers: { cookie } });
      return ((await response.json()) as { accounts: unknown[] }).accounts.length;
    };
    expect(await accounts(`${POSTING}=${client.cookie(POSTING)}`)).toBe(2);
    expect(await accounts(`${POSTING}=${before}`)).toBe(0);
    // One that this server did not issue is not taken.
    expect(await accounts(`${POSTING}=${'a'.repeat(32)}`)).toBe(0);
    await server.close();
  });

  it('stays good for a year from each time that its browser comes back', async () => {
    const server = await openTestServer();
    const client = new Client(server.origin);
    await signIn(client, 'verrow', 'odlin');
    const cookie = `${POSTING}=${client.cookie(POSTING)}`;
    const response = await fetch(`${server.origin}${ACCOUNTS}`, { headers: { cookie } });
    expect(response.headers.get('set-cookie')).toMatch(new RegExp(`^${cookie}; Max-Age=31536000;`));
    const nobody = await fetch(`${server.origin}${ACCOUNTS}`);
    expect(nobody.headers.get('set-cookie')).toBeNull();
    await server.close();
  });

  it('of an older database stays good, and is hashed there', () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'older-'));
    const mark = 'b'.repeat(32);
    const database = openDatabase(folder);
    database.exec(
      `drop table visitors; alter table uploads drop column whole; alter table uploads drop column folder; alter table renders drop column starts;
       alter table postings drop column cover; pragma user_version = 3;`,
    );
    database.prepare('insert into masters values (?, ?, ?, ?)').run([mark, 'f'.repeat(64), 'u', 1]);
    database.close();
    openDatabase(folder).close();
    const now = new Sqlite(path.join(folder, 'gusset.db'));
    const hash = createHash('sha256').update(mark).digest('hex');
    const { visitor } = now.prepare('select visitor from visitors where mark = ?').get([hash]) as {
      visitor: string;
    };
    expect(now.prepare('select visitor from masters').all()).toEqual([{ visitor }]);
    expect(visitor).not.toBe(mark);
    now.close();
  });
});
