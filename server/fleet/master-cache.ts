import { createHash } from 'node:crypto';
import { createWriteStream, existsSync } from 'node:fs';
import { mkdir, readdir, rename, rm, stat, utimes } from 'node:fs/promises';
import path from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Fingerprint } from '../../src/core/master/fingerprint';
import { sha256 } from '../sha256';
import { fetchStream } from './fetch-file';

/** A master that was not used for so long is deleted, in milliseconds. */
const LIFE = 3600_000;

/** Masters that a worker fetched, by fingerprint: each once, and not for long. */
export class MasterCache {
  /** Fingerprints of files that this process has read whole. */
  private readonly checked = new Set<Fingerprint>();
  private readonly coming = new Map<string, Promise<string>>();

  constructor(private readonly folder: string) {}

  /** The file of a master. @throws Error where it cannot be fetched, or is another file than its fingerprint says. */
  async get(fingerprint: Fingerprint, address: string): Promise<string> {
    const known = this.coming.get(fingerprint);
    if (known) return known;
    const coming = this.fetched(fingerprint, address).finally(() => this.coming.delete(fingerprint));
    this.coming.set(fingerprint, coming);
    return coming;
  }

  /** Deletes what was not used for an hour. */
  async sweep(now = Date.now()): Promise<void> {
    for (const name of await readdir(this.folder).catch(() => [])) {
      const file = path.join(this.folder, name);
      const { mtimeMs } = await stat(file).catch(() => ({ mtimeMs: now }));
      if (now - mtimeMs > LIFE) await rm(file, { force: true });
    }
  }

  /**
   * Tells whether a file is here and matches its name's hash; another process may have left it. One that does
   * not is deleted.
   */
  private async isKept(fingerprint: Fingerprint, file: string): Promise<boolean> {
    if (!existsSync(file)) return false;
    if (this.checked.has(fingerprint)) return true;
    if ((await sha256(file)) === fingerprint) {
      this.checked.add(fingerprint);
      return true;
    }
    await rm(file, { force: true });
    return false;
  }

  private async fetched(fingerprint: Fingerprint, address: string): Promise<string> {
    await mkdir(this.folder, { recursive: true, mode: 0o700 });
    const file = path.join(this.folder, fingerprint);
    if (await this.isKept(fingerprint, file)) {
      await utimes(file, new Date(), new Date());
      return file;
    }
    const coming = await fetchStream(address);
    const part = `${file}.${process.pid}.part`;
    const hash = createHash('sha256');
    const hashed = new Transform({
      transform(piece: Buffer, _encoding, done) {
        hash.update(piece);
        done(null, piece);
      },
    });
    try {
      await pipeline(coming, hashed, createWriteStream(part, { mode: 0o600 }));
      if (hash.digest('hex') !== fingerprint) throw new Error('the master is another file than was said');
      await rename(part, file);
      this.checked.add(fingerprint);
      return file;
    } catch (error) {
      await rm(part, { force: true });
      throw error;
    }
  }
}
