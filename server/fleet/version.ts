import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';

/** What decides what a segment looks like besides its order: who has another must not make a part of the same file. */
const FILES = ['src/kernel/kernel.wasm', 'package-lock.json'].map((file) =>
  path.resolve(__dirname, '../..', file),
);

/** A version of what makes segments. */
export const VERSION = FILES.reduce((hash, file) => hash.update(readFileSync(file)), createHash('sha256'))
  .digest('hex')
  .slice(0, 16);
