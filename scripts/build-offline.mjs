// Bundles the service worker into dist/service-worker.js, with a list of every file of the app.
import { build } from 'esbuild';
import { getManifest } from 'workbox-build';

/** Largest file that is kept on the device, in bytes: the largest of the app is half as large. */
const LARGEST = 40e6;
/** A file whose name carries a hash of its contents needs no revision. */
const HASHED = /[-.][0-9a-zA-Z]{8,}\.\w+$/;

export async function buildOffline() {
  const { manifestEntries, warnings } = await getManifest({
    globDirectory: 'dist',
    globPatterns: ['**/*'],
    globIgnores: ['service-worker.js', 'metadata.json', 'demo/**', 'workers/phone-check-*'],
    maximumFileSizeToCacheInBytes: LARGEST,
    dontCacheBustURLsMatching: HASHED,
  });
  if (warnings.length > 0) throw new Error(warnings.join('\n'));
  await build({
    entryPoints: ['src/media/offline/service-worker.ts'],
    outfile: 'dist/service-worker.js',
    bundle: true,
    format: 'iife',
    platform: 'browser',
    target: ['chrome113', 'safari17', 'firefox130'],
    define: { 'process.env.NODE_ENV': '"production"', PRECACHED: JSON.stringify(manifestEntries) },
    minify: true,
    logLevel: 'warning',
  });
}
