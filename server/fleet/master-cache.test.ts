import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseFingerprint } from '../../src/core/master/fingerprint';
import { MasterCache } from './master-cache';

const FILM = 'a film';
const fingerprint = parseFingerprint(createHash('sha256').update(FILM).digest('hex'));

describe('masters that a worker keeps', () => {
  let fetches = 0;
  const server = http.createServer((_request, response) => {
    fetches += 1;
    response.end(FILM);
  });
  let address = '';
  beforeAll(async () => {
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
  });
  afterAll(() => server.close());
  beforeEach(() => (fetches = 0));

  it('are fetched once, and found by another process, which reads them through', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'masters-'));
    const first = new MasterCache(folder);
    for (let n = 0; n < 3; n++) await first.get(fingerprint, address);
    const file = await new MasterCache(folder).get(fingerprint, address);
    expect([readFileSync(file, 'utf8'), fetches]).toEqual([FILM, 1]);
  });

  it('are what their name says: a file that was put there by somebody else is not used', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'masters-'));
    writeFileSync(path.join(folder, fingerprint), 'another film');
    const file = await new MasterCache(folder).get(fingerprint, address);
    expect([readFileSync(file, 'utf8'), fetches]).toEqual([FILM, 1]);
  });
});
