// `npm run quick [-- BASE]`: lint, types, names and unit tests of what changed since BASE, or since the last commit.
import { execFileSync, spawn } from 'node:child_process';
import { existsSync } from 'node:fs';

const base = process.argv[2] ?? 'HEAD';
const lines = (args) => execFileSync('git', args, { encoding: 'utf8' }).split('\n').filter(Boolean);
const changed = [
  ...new Set([
    ...lines(['diff', '--name-only', base]),
    ...lines(['ls-files', '--others', '--exclude-standard']),
  ]),
].filter((file) => existsSync(file));
const code = changed.filter((file) => /\.(ts|tsx|mjs|cjs|js)$/.test(file));
const units = code.filter((file) => /^(src|demo|tests|app)\//.test(file));

/** Runs one part beside the others, and prints what it said where it failed. */
function part(name, command, args) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (said += text));
    child.on('close', (status) => {
      console.log(`${name}: ${status === 0 ? 'passed' : `failed\n${said}`}`);
      resolve(status === 0);
    });
  });
}

if (code.length === 0) {
  console.log(`Nothing changed since ${base}.`);
  process.exit(0);
}
const began = Date.now();
const passed = await Promise.all([
  part('Lint', 'npx', ['eslint', '--max-warnings', '0', '--no-warn-ignored', ...code]),
  part('Types', 'npx', [
    'tsc',
    '--noEmit',
    '--incremental',
    '--tsBuildInfoFile',
    'node_modules/.cache/quick.tsbuildinfo',
  ]),
  part('Names', 'node', ['scripts/check-names.mjs']),
  ...(units.length === 0
    ? []
    : [
        part('Unit tests', 'npx', [
          ...['jest', '--maxWorkers=2', '--passWithNoTests', '--selectProjects', 'core', 'ui', 'components'],
          ...['--findRelatedTests', ...units],
        ]),
      ]),
]);
console.log(`${code.length} files in ${Math.round((Date.now() - began) / 1000)} s`);
process.exit(passed.every(Boolean) ? 0 : 1);
