import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { ROOT } from '../root';

/** Folders of all code that affects the output; workers on one file must match in their hash. */
const FOLDERS = ['src/core', 'src/kernel', 'src/render', 'server/render'];
const MADE_OF = /(?<!\.test)\.ts$|\.wasm$/;

/** Files of a folder that segments are made of, in an order that is always the same. */
const listFiles = (folder: string): string[] =>
  readdirSync(path.join(ROOT, folder), { recursive: true })
    .map((name) => path.join(folder, String(name)))
    .filter((name) => MADE_OF.test(name))
    .sort();

/** A version of what makes segments. */
export const VERSION = ['package-lock.json', ...FOLDERS.flatMap(listFiles)]
  .reduce((hash, file) => hash.update(readFileSync(path.join(ROOT, file))), createHash('sha256'))
  .digest('hex')
  .slice(0, 16);
