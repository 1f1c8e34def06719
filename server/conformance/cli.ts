/** Tries whether an outlet keeps the contract: see {@link HELP}. */
import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { describeProblem } from '../../src/core/figures/schema-problem';
import { postWordsSchema } from '../../src/core/outlets/post-form';
import { checkOutlet, type Result } from './checks';

const HELP = `Tries whether an outlet keeps the contract of docs/outlet-api.yaml.

  npm run check-outlet -- URL --token TOKEN --clip FILE --words FILE

  URL             the outlet's root, such as http://localhost:4100/outlets/verrow
  --token TOKEN   an access token of an account of yours that allowed "read" and "post"
  --clip FILE     a clip that the outlet takes
  --words FILE    JSON of what is posted with it: placement, title, description, tags, audience and more
  --patience S    seconds that a post may be processed (default: 300)

Each post is taken down again. Ends with 0 when all holds, 1 when something does not, and 2 when what was asked makes
no sense.`;

function fail(why: string): never {
  console.error(`${why}\n\n${HELP}`);
  process.exit(2);
}

function parseCommand() {
  try {
    return parseArgs({
      allowPositionals: true,
      options: {
        token: { type: 'string' },
        clip: { type: 'string' },
        words: { type: 'string' },
        patience: { type: 'string', default: '300' },
      },
    });
  } catch (error) {
    return fail(error instanceof Error ? error.message : String(error));
  }
}

const MARKS: Record<Result['state'], string> = { passed: 'holds ', failed: 'BROKEN', 'not there': 'none  ' };

async function main(): Promise<void> {
  const { values, positionals } = parseCommand();
  const [root] = positionals;
  const { token, clip, words, patience } = values;
  if (!root || !token || !clip || !words) fail('The address, a token, a clip and words are needed.');
  let text: unknown;
  try {
    text = JSON.parse(readFileSync(words, 'utf8'));
  } catch (error) {
    fail(`${words} cannot be read: ${String(error)}`);
  }
  const read = postWordsSchema.safeParse(text);
  if (!read.success) fail(`${words} is not what is posted: ${describeProblem(read.error)}`);
  const tried = {
    root: root.replace(/\/+$/, ''),
    token,
    clip: new Uint8Array(readFileSync(clip)),
    words: read.data,
    patience: 1000 * Number(patience),
  };
  const results = await checkOutlet(tried, ({ name, state, why }) =>
    console.log(`${MARKS[state]} ${name}${why === null ? '' : `\n       ${why}`}`),
  );
  const failed = results.filter(({ state }) => state === 'failed').length;
  console.log(`\n${results.filter(({ state }) => state === 'passed').length} hold, ${failed} broken.`);
  process.exit(failed === 0 ? 0 : 1);
}

void main();
