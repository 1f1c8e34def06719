// What takes longest is tested in turns: a quarter of it each time, by how many commits there are.
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';

/** Test files of each turn; a turn takes about as long as another. */
const TURNS = [
  ['e2e/words', 'e2e/rates', 'e2e/faulty-shots', 'e2e/zoo', 'server/render/advice', 'server/kill'],
  ['e2e/encoding', 'e2e/access', 'e2e/killed', 'e2e/colour', 'server/render/quality', 'server/verdicts'],
  ['e2e/resilience', 'e2e/follow', 'e2e/file-size', 'e2e/bars', 'server/fleet/fleet', 'server/posting/storm'],
  [...['e2e/whole-day', 'e2e/returned', 'e2e/other-engine', 'e2e/queue-killed'], 'server/conformance/checks'],
].map((files) => files.map((file) => `${file}.test.ts`));

for (const file of TURNS.flat())
  if (!existsSync(file)) throw new Error(`the rota names ${file}, which is not there`);

/** Whose turn it is; the first where the project's history is not there. */
function turn() {
  try {
    const stdio = ['ignore', 'pipe', 'ignore'];
    return Number(execFileSync('git', ['rev-list', '--count', 'HEAD'], { stdio })) % TURNS.length;
  } catch {
    return 0;
  }
}

/** The test files that wait for another turn. */
export function waiting() {
  const now = turn();
  return TURNS.filter((_, i) => i !== now).flat();
}
