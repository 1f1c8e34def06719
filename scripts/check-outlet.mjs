// `npm run check-outlet -- URL …`: tries whether an outlet keeps the contract of docs/outlet-api.yaml.
import { spawnSync } from 'node:child_process';
import { installNodePackages } from './setup.mjs';

installNodePackages();
const args = ['--import', 'tsx', 'server/conformance/cli.ts', ...process.argv.slice(2)];
process.exit(spawnSync(process.execPath, args, { stdio: 'inherit' }).status ?? 1);
