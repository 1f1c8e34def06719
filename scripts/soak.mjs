// `npm run soak [-- --seed N] [-- PROOF …]`: the long proofs, whose short pieces run in `npm test`; writes docs/soak.md.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
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
  'core/words/files/read-captions',
  'media/follow/filmed-follow',
  'core/pass/live-area-finder',
  'kernel/live-part',
  'core/rate/level',
  'core/proof/coverage',
  'core/job/delta',
  'core/follow/follow-films',
  'core/follow/patch-tracker',
  'render/pane-painter',
  'e2e/access',
  'e2e/whole-day',
  'e2e/returned',
  'e2e/framing',
  'e2e/colour',
  'e2e/zoo',
  'e2e/bars',
  'e2e/file-size',
  'e2e/encoding',
  'e2e/same-frames',
  'e2e/other-engine',
  'e2e/faulty-shots',
  'e2e/random-acts',
  'e2e/repairs',
];

const PAGE = 'docs/soak.md';

const { values, positionals } = parseArgs({
  options: { seed: { type: 'string', default: '20261126' } },
  allowPositionals: true,
});
const proofs =
  positionals.length === 0
    ? PROOFS
    : PROOFS.filter((proof) => positionals.some((name) => proof.includes(name)));
if (proofs.length === 0) {
  console.error(`No proof is called ${positionals.join(' or ')}. There are: ${PROOFS.join(', ')}.`);
  process.exit(2);
}
installNodePackages();
installDebianPackages(JUDGES, 'The proofs drive two real browsers and a real server.');
const { buildParts, buildAll } = await import('./build.mjs');
await buildParts();
await buildAll();
const figures = path.join(mkdtempSync(path.join(tmpdir(), 'soak-')), 'figures.jsonl');
writeFileSync(figures, '');
const patterns = proofs.map((proof) => `/${proof}.test`).join('|');
const { status } = spawnSync('npx', ['jest', '--runInBand', '--forceExit', '--testPathPattern', patterns], {
  stdio: 'inherit',
  env: { ...process.env, GUSSET_SOAK: figures, GUSSET_SEED: values.seed },
});

/** Figures by proof; a proof that did not run now keeps its earlier figures. */
const rows = new Map(
  readFileSync(PAGE, 'utf8')
    .split('\n')
    .filter((line) => /^\| .+ \| .+ \| \d{4}-/.test(line))
    .map((line) => line.split('|').map((cell) => cell.trim()))
    .map(([, proof, found, day]) => [proof, [found, day]]),
);
const today = new Date().toISOString().slice(0, 10);
for (const line of readFileSync(figures, 'utf8').split('\n').filter(Boolean)) {
  const { proof, found } = JSON.parse(line);
  rows.set(proof, [found, today]);
}
const ran = proofs === PROOFS ? 'all of them' : proofs.join(', ');
const page = [
  '# Long proofs',
  '',
  'Written by `npm run soak`. A short piece of each, from the same seed, runs in `npm test`. `npm run soak -- storm line`',
  'runs those alone, and leaves what the others found as it is.',
  '',
  'What is short there: some of many cases, drawn by the seed; shorter films; and canvases of 360×640 where the size of',
  'what is made tells nothing. Two tests run here alone, since `npm test` has others of the same: frames of an inset, turned',
  'and tilted, beside the preview (`e2e/framing` compares three other layouts, `e2e/same-frames` a tilted picture bit for',
  'bit); and films of somebody who hides for a while (`media/follow/filmed-follow` has one who walks behind a post).',
  '',
  `Last run: ${today}, seed ${values.seed}, ${cpus().length} cores, ${ran}: ${status === 0 ? 'all passed' : 'SOME FAILED'}.`,
  '',
  '| proof | found | when |',
  '|---|---|---|',
  ...[...rows].map(([proof, [found, day]]) => `| ${proof} | ${found} | ${day} |`),
  '',
];
writeFileSync(PAGE, page.join('\n'));
process.exit(status ?? 1);
