// Builds everything that the server serves: kernel, workers, web app. Does nothing when dist is newer than its sources.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';

const SOURCES = ['app', 'src', 'public', 'scripts'];
const FILES = ['package-lock.json', 'app.json', 'babel.config.js', 'metro.config.js', 'tsconfig.json'];
/** Written by the build itself. */
const MADE = ['public/fonts', 'public/models', 'public/workers', 'src/media/worker/worker-urls.ts'];
const STAMP = 'dist/.sources';

function* filesUnder(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const file = path.posix.join(folder, entry.name);
    if (MADE.includes(file) || file.endsWith('.wasm')) continue;
    if (entry.isDirectory()) yield* filesUnder(file);
    else yield file;
  }
}

function sourcesHash() {
  const hash = createHash('sha256');
  for (const file of [...SOURCES.flatMap((folder) => [...filesUnder(folder)]), ...FILES]) {
    hash.update(file).update(readFileSync(file));
  }
  return hash.digest('hex');
}

/** Makes what the sources import, the kernel and the workers' addresses, and the fonts. */
export async function buildParts() {
  const { buildKernel } = await import('./build-kernel.mjs');
  const { buildWorkers } = await import('./build-workers.mjs');
  const { buildFonts } = await import('./build-fonts.mjs');
  await buildKernel();
  buildFonts();
  await buildWorkers();
  execFileSync('npx', ['tsx', 'scripts/write-schema.ts'], { stdio: ['ignore', 'ignore', 'inherit'] });
}

/** Makes what drawing without a browser needs: the kernel, where its source is newer, and the fonts. */
export async function buildDrawing() {
  const { buildKernel, isKernelBuilt } = await import('./build-kernel.mjs');
  const { buildFonts } = await import('./build-fonts.mjs');
  if (!isKernelBuilt()) await buildKernel();
  buildFonts();
}

export async function buildAll() {
  const hash = sourcesHash();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === hash) return;
  console.log('Building the app (a minute or two the first time)…');
  await buildParts();
  const env = { ...process.env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1' };
  // Expo takes an empty CI for a broken one.
  delete env.CI;
  execFileSync('npx', ['expo', 'export', '-p', 'web'], { env, stdio: ['ignore', 'ignore', 'inherit'] });
  const { buildOffline } = await import('./build-offline.mjs');
  await buildOffline();
  writeFileSync(STAMP, hash);
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) await buildAll();
