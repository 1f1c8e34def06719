// `npm run demo [-- --port N --data FOLDER]`: sets up, builds and starts everything with the demo data on one port.
import { installDebianPackages, installNodePackages } from './setup.mjs';

installNodePackages('serving');
installDebianPackages(
  { ffmpeg: 'ffmpeg' },
  "The outlets' stand-ins look for black bars with it, and say so when they cannot.",
);
const { buildAll } = await import('./build.mjs');
await buildAll();
const { runProgram } = await import('./build-server.mjs');
await runProgram('main');
