// Builds everything that the server serves: kernel, workers, web app. Does nothing when dist is newer than its sources.
import { execFileSync } from 'node:child_process';
import { pathToFileURL } from 'node:url';
import { unlessFresh } from './stamp.mjs';

const SOURCES = ['app', 'src', 'public', 'scripts'];
const FILES = ['package-lock.json', 'app.json', 'babel.config.js', 'metro.config.js', 'tsconfig.json'];
const STAMP = 'dist/.sources';

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

async function buildApp() {
  console.log('Building the app (a minute or two the first time)…');
  await buildParts();
  const env = { ...process.env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1' };
  // Expo takes an empty CI for a broken one.
  delete env.CI;
  execFileSync('npx', ['expo', 'export', '-p', 'web'], { env, stdio: ['ignore', 'ignore', 'inherit'] });
  const { buildOffline } = await import('./build-offline.mjs');
  await buildOffline();
}

export const buildAll = () => unlessFresh(STAMP, [...SOURCES, ...FILES], buildApp);

if (import.meta.url === pathToFileURL(process.argv[1]).href) await buildAll();
