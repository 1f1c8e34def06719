import { mkdtempSync } from 'node:fs';
import { spawn, spawnSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { builtProgram } from '../root';
import { FolderTakenError, lockFolder } from './folder-lock';

describe('a folder that one server works on', () => {
  it('is nobody else’s until it is let go', () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'lock-'));
    const lock = lockFolder(folder);
    expect(() => lockFolder(folder)).toThrow(FolderTakenError);
    lock.release();
    lockFolder(folder).release();
  });

  it('is refused to a second server in plain words, and free once the first was killed', async () => {
    const data = mkdtempSync(path.join(tmpdir(), 'lock-'));
    const args = [
      builtProgram('main'),
      '--port',
      '0',
      '--data',
      data,
      '--dist',
      mkdtempSync(path.join(tmpdir(), 'd-')),
    ];
    const first = spawn(process.execPath, args, { stdio: ['ignore', 'pipe', 'inherit'] });
    await new Promise((resolve) => first.stdout.once('data', resolve));
    const second = spawnSync(process.execPath, args, { encoding: 'utf8', timeout: 30_000 });
    expect([second.status, second.stderr]).toEqual([1, expect.stringContaining(`at work in ${data}`)]);
    const gone = new Promise((resolve) => first.once('exit', resolve));
    first.kill('SIGKILL');
    await gone;
    lockFolder(data).release();
  });
});
