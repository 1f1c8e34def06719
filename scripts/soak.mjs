// `npm run soak [-- SEED]`: the long proofs, whose short pieces run in `npm test`; writes docs/soak.md.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import path from 'node:path';
import { installDebianPackages, installNodePackages, JUDGES } from './setup.mjs';

/** Files with a long proof in them. */
const PROOFS = [
  'server/kill',
  'server/verdicts',
  'server/fleet/fleet',
  'server/conformance/checks',
  'server/posting/storm',
  'server/posting/dispatcher',
  'server/posting/line',
  'server/render/quality',
  'server/render/advice',
  'e2e/queue-killed',
  'e2e/killed',
  'core/interchange/fuzz',
  'core/words/files',
  'media/follow/filmed-follow',
  'e2e/access',
  'e2e/whole-day',
  'e2e/framing',
  'e2e/colour',
  'e2e/zoo',
  'e2e/bars',
  'e2e/file-size',
  'e2e/encoding',
  'e2e/same-frames',
  'e2e/other-engine',
  'e2e/faulty-shots',
];

installNodePackages();
installDebianPackages(JUDGES, 'The proofs drive two real browsers and a real server.');
const { buildParts, buildAll } = await import('./build.mjs');
await buildParts();
await buildAll();
const [seed = '20261126'] = process.argv.slice(2);
const figures = path.join(mkdtempSync(path.join(tmpdir(), 'soak-')), 'figures.jsonl');
writeFileSync(figures, '');
const { status } = spawnSync('npx', ['jest', '--runInBand', '--testPathPattern', PROOFS.join('|')], {
  stdio: 'inherit',
  env: { ...process.env, GUSSET_SOAK: figures, GUSSET_SEED: seed },
});
const rows = readFileSync(figures, 'utf8')
  .split('\n')
  .filter(Boolean)
  .map((line) => JSON.parse(line))
  .map(({ proof, found }) => `| ${proof} | ${found} |`);
const page = [
  '# Long proofs',
  '',
  'Written by `npm run soak`. A short piece of each, from the same seed, runs in `npm test`.',
  '',
  `${new Date().toISOString().slice(0, 10)}, seed ${seed}, ${cpus().length} cores: ${status === 0 ? 'all passed' : 'SOME FAILED'}.`,
  '',
  '| proof | found |',
  '|---|---|',
  ...rows,
  '',
];
writeFileSync('docs/soak.md', page.join('\n'));
process.exit(status ?? 1);
