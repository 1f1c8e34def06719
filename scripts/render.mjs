// `npm run render -- job.json --out clip.mp4`: makes a file of a job and its masters, without a browser.
import { installDebianPackages, installNodePackages } from './setup.mjs';

installNodePackages('serving');
if (installDebianPackages({ ffmpeg: 'ffmpeg' }, 'It decodes and encodes.').length > 0) process.exit(1);
const { buildDrawing } = await import('./build.mjs');
await buildDrawing();
const { runProgram } = await import('./build-server.mjs');
await runProgram('render');
