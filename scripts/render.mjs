// `npm run render -- job.json --out clip.mp4`: makes a file of a job and its masters, without a browser.
import { spawnSync } from 'node:child_process';
import { installDebianPackages, installNodePackages } from './setup.mjs';

installNodePackages();
if (installDebianPackages({ ffmpeg: 'ffmpeg' }, 'It decodes and encodes.').length > 0) process.exit(1);
const { buildDrawing } = await import('./build.mjs');
await buildDrawing();
const args = ['--import', 'tsx', 'server/render/cli.ts', ...process.argv.slice(2)];
process.exit(spawnSync(process.execPath, args, { stdio: 'inherit' }).status ?? 1);
