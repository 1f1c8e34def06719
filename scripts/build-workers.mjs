// Bundles each src/media/worker/*.worker.ts into public/workers/ and writes their URLs to src/media/worker/worker-urls.ts.
import { build } from 'esbuild';
import { mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const SOURCE = 'src/media/worker';
const ENDING = '.worker.ts';

export async function buildWorkers() {
  rmSync('public/workers', { recursive: true, force: true });
  mkdirSync('public/workers', { recursive: true });
  const result = await build({
    entryPoints: readdirSync(SOURCE)
      .filter((file) => file.endsWith(ENDING))
      .map((file) => path.posix.join(SOURCE, file)),
    outdir: 'public/workers',
    entryNames: '[name]-[hash]',
    assetNames: '[name]-[hash]',
    publicPath: '/workers/',
    bundle: true,
    format: 'esm',
    platform: 'browser',
    target: ['chrome113', 'safari17', 'firefox130'],
    loader: { '.wasm': 'file' },
    define: { 'process.env.NODE_ENV': '"production"' },
    minify: true,
    metafile: true,
    logLevel: 'warning',
  });
  const urls = {};
  for (const [out, meta] of Object.entries(result.metafile.outputs)) {
    if (!meta.entryPoint?.endsWith(ENDING)) continue;
    urls[path.basename(meta.entryPoint, ENDING)] = '/' + path.posix.relative('public', out);
  }
  const text = JSON.stringify(urls, null, 2);
  writeFileSync(
    'src/media/worker/worker-urls.ts',
    `// Written by scripts/build-workers.mjs.\nexport const workerUrls = ${text} as const;\n`,
  );
  return urls;
}
