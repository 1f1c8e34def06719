import { build } from 'esbuild';

/** A script and all that it imports, for a page of the app to run. */
export async function bundled(entry: string): Promise<string> {
  const { outputFiles } = await build({
    entryPoints: [entry],
    ...{ bundle: true, write: false, format: 'iife', platform: 'browser', outdir: 'unwritten' },
    // The same files as those of the workers that were built.
    ...{
      loader: { '.wasm': 'file' },
      assetNames: '[name]-[hash]',
      publicPath: '/workers/',
      external: ['node:*'],
    },
  });
  return outputFiles.find(({ path }) => path.endsWith('.js'))?.text ?? '';
}
