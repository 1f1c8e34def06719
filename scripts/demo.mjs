// `npm run demo [-- --port N --data FOLDER]`: sets up, builds and starts everything with the demo data on one port.
import { spawn } from 'node:child_process';
import { installDebianPackages, installNodePackages } from './setup.mjs';

installNodePackages();
installDebianPackages(
  { ffmpeg: 'ffmpeg' },
  "The outlets' stand-ins look for black bars with it, and say so when they cannot.",
);
const { buildAll } = await import('./build.mjs');
await buildAll();
const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts', ...process.argv.slice(2)], {
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
