// Checks what lint cannot see of names: how docstrings begin, and that no two exports of the program share a name.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';

/** Beginnings that leave a docstring without a subject. */
const VAGUE = /\/\*\*\s*(?:\*\s*)?((?:What|Those|One|Whether|Which)\b[^\n]{0,60})/g;
const EXPORTED =
  /^export (?:declare )?(?:abstract )?(?:async )?(?:function\*?|const|class|interface|type) (\w+)/gm;
/** Names that stand for one thing on both sides: a task, and the function of the page that has a worker do it. */
const TASKS = 'src/media/worker/tasks.ts';

const files = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard'], {
  encoding: 'utf8',
})
  .split('\n')
  .filter((file) => /\.(tsx?|mjs|cjs)$/.test(file) && !file.endsWith('.d.ts'));

const faults = [];
const exported = new Map();
for (const file of files) {
  const text = readFileSync(file, 'utf8');
  for (const [, words] of text.matchAll(VAGUE)) faults.push(`${file}: a docstring begins with “${words}…”`);
  if (!/^(src|server)\//.test(file) || /\.test\.|\/assembly\//.test(file) || file === TASKS) continue;
  for (const name of new Set([...text.matchAll(EXPORTED)].map(([, found]) => found)))
    exported.set(name, [...(exported.get(name) ?? []), file]);
}
for (const [name, places] of exported)
  if (places.length > 1) faults.push(`${name} is exported by ${places.join(' and ')}`);

for (const fault of faults) console.error(fault);
console.log(`${files.length} files, ${faults.length} faults.`);
process.exit(faults.length === 0 ? 0 : 1);
