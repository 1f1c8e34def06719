// Bundles what runs without a browser, a file for each program and thread: it starts in a quarter of the time.
import { spawn } from 'node:child_process';
import { build } from 'esbuild';
import { unlessFresh } from './stamp.mjs';

const FOLDER = 'server-build';
const SOURCES = ['server', 'src', 'scripts/build-server.mjs', 'package-lock.json', 'tsconfig.json'];
const PROGRAMS = {
  main: 'server/main.ts',
  render: 'server/render/cli.ts',
  worker: 'server/fleet/worker.ts',
  'check-outlet': 'server/conformance/cli.ts',
  'order-thread': 'server/renders/order-thread.ts',
  'segment-thread': 'server/render/segment-thread.ts',
  'rate-trial-thread': 'server/render/rate-trial-thread.ts',
};

export const buildServer = () =>
  unlessFresh(`${FOLDER}/.sources`, SOURCES, () =>
    build({
      entryPoints: PROGRAMS,
      outdir: FOLDER,
      outExtension: { '.js': '.cjs' },
      bundle: true,
      platform: 'node',
      target: 'node20',
      format: 'cjs',
      // It has a binary of its own.
      external: ['@napi-rs/canvas'],
      logLevel: 'warning',
    }),
  );

/** Runs a program with what the command line says, and ends as it ends. */
export async function runProgram(name) {
  await buildServer();
  const args = [`${FOLDER}/${name}.cjs`, ...process.argv.slice(2)];
  const child = spawn(process.execPath, args, { stdio: 'inherit' });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  child.on('exit', (code) => process.exit(code ?? 1));
}
