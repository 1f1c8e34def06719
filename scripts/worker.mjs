// `npm run worker`: makes segments of files for a server elsewhere.
import { installDebianPackages, installNodePackages } from './setup.mjs';

installNodePackages('serving');
if (installDebianPackages({ ffmpeg: 'ffmpeg' }, 'It decodes and encodes.').length > 0) process.exit(1);
const { buildDrawing } = await import('./build.mjs');
await buildDrawing();
const { runProgram } = await import('./build-server.mjs');
await runProgram('worker');
