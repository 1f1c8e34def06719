import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  utimesSync,
} from 'node:fs';
import { homedir } from 'node:os';
import path from 'node:path';

/** Folder of films that earlier runs made for tests, by the hash of what makes each. */
export const CACHE = process.env.GUSSET_FILMS ?? path.join(homedir(), '.cache', 'gusset-test-films');
/** A film that no test asked for during so many milliseconds is deleted. */
const KEPT_MS = 14 * 24 * 3600 * 1000;

let version: string | null = null;

/** The hash of a call of ffmpeg: of its version, its arguments, and what lies in the files that these name. */
function hashRecipe(args: readonly string[]): string {
  version ??= execFileSync('ffmpeg', ['-version']).toString();
  const hash = createHash('sha256').update(version);
  for (const arg of args) {
    const isFile = existsSync(arg) && statSync(arg).isFile();
    hash.update(isFile ? readFileSync(arg) : arg).update('\0');
  }
  return hash.digest('hex');
}

function deleteUnused(): void {
  for (const name of readdirSync(CACHE)) {
    const file = path.join(CACHE, name);
    const usedMs = statSync(file, { throwIfNoEntry: false })?.mtimeMs ?? Infinity;
    if (Date.now() - usedMs > KEPT_MS) rmSync(file, { force: true, recursive: true });
  }
}

/**
 * Makes a file with ffmpeg, or copies what the same arguments made in an earlier test or run.
 * @param args all but the file's name. @returns the file.
 */
export function encodeFilm(file: string, args: readonly string[]): string {
  const kept = path.join(CACHE, hashRecipe(args) + path.extname(file));
  if (!existsSync(kept)) {
    mkdirSync(CACHE, { recursive: true });
    deleteUnused();
    // Another test may make the same at this moment: whichever ends last puts the same bytes there.
    const fresh = path.join(CACHE, `${process.pid}-${path.basename(kept)}`);
    execFileSync('ffmpeg', ['-y', '-v', 'error', ...args, fresh]);
    renameSync(fresh, kept);
  }
  utimesSync(kept, new Date(), new Date());
  copyFileSync(kept, file);
  return file;
}
