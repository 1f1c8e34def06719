// Makes what is out of date, and leaves what is not.
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';

/** Written by the build itself. */
const MADE = ['public/fonts', 'public/models', 'public/workers', 'src/media/worker/worker-urls.ts'];

function* filesUnder(file) {
  if (MADE.includes(file) || file.endsWith('.wasm')) return;
  if (!statSync(file).isDirectory()) yield file;
  else for (const name of readdirSync(file)) yield* filesUnder(path.posix.join(file, name));
}

function hashOf(sources) {
  const hash = createHash('sha256');
  for (const file of sources.flatMap((source) => [...filesUnder(source)])) {
    hash.update(file).update(readFileSync(file));
  }
  return hash.digest('hex');
}

/** Makes something unless its stamp says that its sources, files and folders, are what they were when it was made. */
export async function unlessFresh(stamp, sources, make) {
  const hash = hashOf(sources);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return;
  await make();
  writeFileSync(stamp, hash);
}
