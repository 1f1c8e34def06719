import { chmodSync, chownSync, mkdtempSync, statSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ensurePrivateFolder } from './private-folder';

const outer = mkdtempSync(path.join(tmpdir(), 'private-'));
const modeOf = (folder: string): number => statSync(folder).mode & 0o777;

describe('a folder of this user’s own', () => {
  it('is made so that nobody else enters it, with those above it', () => {
    const folder = path.join(outer, 'a/b');
    ensurePrivateFolder(folder);
    expect(modeOf(folder)).toBe(0o700);
  });

  it('is closed where it was open', () => {
    const folder = mkdtempSync(path.join(outer, 'open-'));
    chmodSync(folder, 0o755);
    ensurePrivateFolder(folder);
    expect(modeOf(folder)).toBe(0o700);
  });

  it('is refused where it is a link, or no folder', () => {
    const link = path.join(outer, 'link');
    symlinkSync(outer, link);
    expect(() => ensurePrivateFolder(link)).toThrow('is a link or no folder');
    const file = path.join(outer, 'file');
    writeFileSync(file, '');
    expect(() => ensurePrivateFolder(file)).toThrow();
  });

  (process.getuid?.() === 0 ? it : it.skip)('is refused where it is somebody else’s', () => {
    const folder = mkdtempSync(path.join(outer, 'other-'));
    chownSync(folder, 65_534, 65_534);
    expect(() => ensurePrivateFolder(folder)).toThrow('belongs to another user');
  });
});
