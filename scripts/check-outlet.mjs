// `npm run check-outlet -- URL …`: tries whether an outlet keeps the contract of docs/outlet-api.yaml.
import { installNodePackages } from './setup.mjs';

installNodePackages('serving');
const { runProgram } = await import('./build-server.mjs');
await runProgram('check-outlet');
