// Bundles each src/media/worker/*.worker.ts, and the script of the phone's page, into public/workers/ and writes their URLs to src/media/worker/worker-urls.ts.
import { build } from 'esbuild';
import { copyFileSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const SOURCE = 'src/media/worker';
const ENDING = '.worker.ts';
/** What a phone is given that has no app. */
const PHONE = 'src/media/hand-off/phone-check.ts';

/** Detectors' weights, from the packages that ship them to where the app's own server has them. */
const MODELS = {
  ...Object.fromEntries(
    ['blazeface.json', 'blazeface.bin', 'centernet.json', 'centernet.bin'].map((name) => [
      name,
      `@vladmandic/human/models/${name}`,
    ]),
  ),
  'voice.onnx': '@ricky0123/vad-web/dist/silero_vad_v6.onnx',
};

function copyModels() {
  mkdirSync('public/models', { recursive: true });
  for (const [name, shipped] of Object.entries(MODELS)) {
    copyFileSync(`node_modules/${shipped}`, `public/models/${name}`);
  }
}

export async function buildWorkers() {
  copyModels();
  rmSync('public/workers', { recursive: true, force: true });
  mkdirSync('public/workers', { recursive: true });
  const result = await build({
    entryPoints: [
      ...readdirSync(SOURCE)
        .filter((file) => file.endsWith(ENDING))
        .map((file) => path.posix.join(SOURCE, file)),
      PHONE,
    ],
    outdir: 'public/workers',
    entryNames: '[name]-[hash]',
    assetNames: '[name]-[hash]',
    publicPath: '/workers/',
    bundle: true,
    format: 'esm',
    platform: 'browser',
    target: ['chrome113', 'safari17', 'firefox130'],
    loader: { '.wasm': 'file' },
    // Asked for by packages under Node alone.
    external: ['node:*'],
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
