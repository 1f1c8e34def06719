// `npm run bench`: sets up, then prints figures of this machine and writes docs/benchmarks.md.
import { execFileSync } from 'node:child_process';
import { installDebianPackages, installNodePackages } from './setup.mjs';

installNodePackages();
installDebianPackages(
  { chromium: 'chromium', ffmpeg: 'ffmpeg' },
  'The benchmarks compare a real browser with ffmpeg.',
);
const { buildParts } = await import('./build.mjs');
await buildParts();
const { buildServer } = await import('./build-server.mjs');
await buildServer();
execFileSync('npx', ['tsx', 'bench/run.ts', ...process.argv.slice(2)], { stdio: 'inherit' });
