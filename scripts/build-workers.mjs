// Bundles each src/media/worker/*.worker.ts, and the script of the phone's page, into public/workers/ and writes their URLs to src/media/worker/worker-urls.ts.
import { build } from 'esbuild';
import { copyFileSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const SOURCE = 'src/media/worker';
const ENDING = '.worker.ts';
/** Loads the tasks. */
const IMPLEMENTATIONS = 'src/media/worker/implementations.ts';
/** Script of the page on a phone that has no app: one file, since such a phone is served nothing else. */
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

/** Settings for bundling workers and the phone's script. */
const SETTINGS = {
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
  logLevel: 'warning',
};

function copyModels() {
  mkdirSync('public/models', { recursive: true });
  for (const [name, shipped] of Object.entries(MODELS)) {
    copyFileSync(`node_modules/${shipped}`, `public/models/${name}`);
  }
}

/**
 * Modules that nearly all workers need, each after those that it needs itself: a file each, which the browser keeps.
 * A trouble is known by its class, so that there must be one.
 */
const SHARED = ['zod', 'mediabunny', path.resolve('src/core/trouble/trouble.ts')];

/** Where a bundle lies, from the server's root. */
const urlOf = (out) => '/' + path.posix.relative('public', out);

/** Leaves imports out of a bundle that are files of their own. @param urls by resolved path or by package. */
const importing = (urls) => ({
  name: 'importing',
  setup(build) {
    build.onResolve({ filter: /./ }, async ({ path: asked, kind, resolveDir, pluginData }) => {
      if (kind === 'entry-point' || pluginData === 'resolved') return undefined;
      const named = urls.get(asked);
      if (named) return { path: named, external: true };
      if (!/^[.@]/.test(asked)) return undefined;
      const { path: file } = await build.resolve(asked, { kind, resolveDir, pluginData: 'resolved' });
      const url = urls.get(file);
      return url ? { path: url, external: true } : undefined;
    });
  },
});

/** Bundles files, each with all that it needs but what others have. @returns where each lies, by its path or package. */
async function bundle(entries, urls) {
  const known = new Map(urls);
  const { metafile } = await build({
    ...SETTINGS,
    entryPoints: entries.map((entry) => ({ in: entry, out: path.parse(entry).name })),
    plugins: [importing(urls)],
    metafile: true,
  });
  for (const [out, { entryPoint }] of Object.entries(metafile.outputs)) {
    const entry = entries.find(
      (one) =>
        entryPoint &&
        (path.resolve(entryPoint) === path.resolve(one) || entryPoint.includes(`node_modules/${one}/`)),
    );
    if (entry) known.set(entry, urlOf(out));
  }
  return known;
}

/** Finds what `implementations.ts` loads: the tasks' own files. */
async function findTasks() {
  const { metafile } = await build({
    ...SETTINGS,
    entryPoints: [IMPLEMENTATIONS],
    splitting: true,
    write: false,
    metafile: true,
  });
  return metafile.inputs[IMPLEMENTATIONS].imports
    .filter(({ kind }) => kind === 'dynamic-import')
    .map(({ path: file }) => path.resolve(file));
}

export async function buildWorkers() {
  copyModels();
  rmSync('public/workers', { recursive: true, force: true });
  mkdirSync('public/workers', { recursive: true });
  let known = new Map();
  for (const shared of SHARED) known = await bundle([shared], known);
  known = await bundle(await findTasks(), known);
  const workers = readdirSync(SOURCE)
    .filter((file) => file.endsWith(ENDING))
    .map((file) => path.resolve(SOURCE, file));
  const built = await bundle(workers, known);
  await build({ ...SETTINGS, entryPoints: [PHONE] });
  const urls = Object.fromEntries(workers.map((file) => [path.basename(file, ENDING), built.get(file)]));
  const text = JSON.stringify(urls, null, 2);
  writeFileSync(
    'src/media/worker/worker-urls.ts',
    `// Written by scripts/build-workers.mjs.\nexport const workerUrls = ${text} as const;\n`,
  );
  return urls;
}
