import { chmodSync, lstatSync, mkdirSync } from 'node:fs';

/**
 * Makes a folder that only this user can enter, or closes one that is there to all others.
 * @throws Error where it is a link, no folder, or somebody else's.
 */
export function ensurePrivateFolder(folder: string): void {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const found = lstatSync(folder);
  if (!found.isDirectory()) throw new Error(`${folder} is a link or no folder`);
  if (process.getuid !== undefined && found.uid !== process.getuid())
    throw new Error(`${folder} belongs to another user`);
  if ((found.mode & 0o077) !== 0) chmodSync(folder, 0o700);
}
