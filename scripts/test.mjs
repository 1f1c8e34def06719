// `npm test`: sets up, then lint, types, unit tests and browser tests; the last line counts them all.
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { installDebianPackages, installNodePackages, JUDGES } from './setup.mjs';

installNodePackages();
const missing = installDebianPackages(
  JUDGES,
  'The tests drive two real browsers and judge files with ffmpeg.',
);

/** How often it is said what is going on, in milliseconds. */
const SAY_EVERY = 30_000;

/** A part that has not ended after this long, or this long after its results, is ended, in milliseconds. */
const MAX_PART_MS = 70 * 60_000;
const MAX_AFTER_RESULTS = 60_000;

/** Parts that run. */
const running = new Set();
const endAll = () => {
  for (const { pid } of running) process.kill(-pid, 'SIGKILL');
  process.exit(1);
};
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, endAll);

/**
 * Runs one part, says every half minute that it is at it, and how it went.
 * @param results where it writes what passed, at its end.
 * @returns whether it passed.
 */
async function part(name, command, args, results = null) {
  console.log(`\n${name}`);
  const began = Date.now();
  const env = results === null ? process.env : { ...process.env, GUSSET_RESULTS: results };
  // A group of its own, so that all of it can be ended.
  const child = spawn(command, args, { stdio: 'inherit', env, detached: true });
  running.add(child);
  const clock = setInterval(() => {
    const now = Date.now();
    console.log(`… at ${name} for ${Math.round((now - began) / 1000)} s`);
    const overdue = results && existsSync(results) && now - statSync(results).mtimeMs > MAX_AFTER_RESULTS;
    if (!overdue && now - began < MAX_PART_MS) return;
    console.error(
      overdue ? `${name}: something still runs after the last test.` : `${name}: no end in sight.`,
    );
    process.kill(-child.pid, 'SIGKILL');
  }, SAY_EVERY);
  const status = await new Promise((resolve) => {
    child.on('error', () => resolve(1));
    child.on('close', resolve);
  });
  clearInterval(clock);
  running.delete(child);
  console.log(`${name}: ${status === 0 ? 'passed' : 'failed'}`);
  return status === 0;
}

const counts = { passed: 0, failed: missing.length };
const count = (passed) => (counts[passed ? 'passed' : 'failed'] += 1);

try {
  const { buildParts, buildAll } = await import('./build.mjs');
  await buildParts();
  await buildAll();
} catch (error) {
  console.error(error);
  count(false);
}
const checks = [
  part('Lint', 'npx', ['eslint', '.', '--max-warnings', '0']),
  part('Unused code', 'npx', ['knip']).then(async (passed) => [
    passed,
    await part('Types', 'npx', ['tsc', '--noEmit']),
    await part('Docs', 'node', ['scripts/check-docs.mjs']),
    await part('Names', 'node', ['scripts/check-names.mjs']),
  ]),
];
const results = mkdtempSync(path.join(tmpdir(), 'results-'));

/** Runs the tests of some of Jest's projects in a process of its own, so that memory that one took is given back. */
async function test(name, projects, workers) {
  const file = path.join(results, `${projects[0]}.json`);
  const reporters = ['--reporters=default', '--reporters=<rootDir>/jest/summary.cjs'];
  const args = ['jest', `--maxWorkers=${workers}`, ...reporters, '--selectProjects', ...projects];
  const run = () => part(name, 'npx', args, file);
  const began = Date.now();
  let passed = await run();
  if (!existsSync(file) && Date.now() - began < MAX_PART_MS) {
    // A machine that takes memory back may end a process with a signal: that says nothing of the tests.
    console.error(`The ${name.toLowerCase()} were ended before their end. They are run once more.`);
    passed = await run();
  }
  try {
    const found = JSON.parse(readFileSync(file, 'utf8'));
    counts.passed += found.passed;
    counts.failed += found.failed;
    if (!passed && found.failed === 0) count(false);
  } catch {
    console.error(`The ${name.toLowerCase()} did not run to their end.`);
    count(false);
  }
}

// Lint has one core to itself, and leaves the other.
await test('Unit tests', ['core', 'ui', 'components'], 2);
for (const passed of (await Promise.all(checks)).flat()) count(passed);
// Two at a time: while one waits for a server or a page, the other has both cores.
await test('Server tests', ['server'], 2);
await test('Browser tests', ['e2e'], 2);

console.log(`\n${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed === 0 ? 0 : 1);
