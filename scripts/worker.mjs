// `npm run worker`: makes segments of files for a server elsewhere.
import { spawn } from 'node:child_process';
import { installDebianPackages, installNodePackages } from './setup.mjs';

installNodePackages();
if (installDebianPackages({ ffmpeg: 'ffmpeg' }, 'It decodes and encodes.').length > 0) process.exit(1);
const { buildDrawing } = await import('./build.mjs');
await buildDrawing();
const args = ['--import', 'tsx', 'server/fleet/worker.ts', ...process.argv.slice(2)];
const child = spawn(process.execPath, args, { stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
child.on('exit', (code) => process.exit(code ?? 1));
