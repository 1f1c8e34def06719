import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ThreadPool } from './thread-pool';

interface Work {
  /** Behaviour of the thread: tells its number, throws, ends, waits to be stopped, or does not hear. */
  do: 'tell' | 'throw' | 'exit' | 'wait' | 'hang';
}

/** A module that serves such work. */
const SOURCE = path.join(mkdtempSync(path.join(tmpdir(), 'threads-')), 'work.ts');
const FILE = SOURCE.replace('.ts', '.cjs');
writeFileSync(
  SOURCE,
  `import { threadId } from 'node:worker_threads';
  import { serveThread } from ${JSON.stringify(path.join(__dirname, 'serve-thread'))};
  serveThread(async (data: { do: string }, report, signal) => {
    report('begun');
    if (data.do === 'throw') throw new Error('it went wrong');
    if (data.do === 'exit') process.exit(3);
    if (data.do === 'hang') for (;;);
    if (data.do === 'wait') await new Promise((_, reject) => signal.addEventListener('abort', () => reject(new Error('stopped'))));
    return threadId;
  });`,
);
execFileSync('npx', ['esbuild', SOURCE, '--bundle', '--platform=node', `--outfile=${FILE}`]);

let pool: ThreadPool<Work, string, number>;
beforeEach(() => (pool = new ThreadPool(FILE, 2)));
afterEach(() => pool.close());

const run = (what: Work['do'], signal = new AbortController().signal, report: () => void = () => undefined) =>
  pool.run({ do: what }, report, signal);

describe('threads that do work', () => {
  it('are used again, and so many at once as there may be', async () => {
    const first = await run('tell');
    expect(await run('tell')).toBe(first);
    const [a, b, c] = await Promise.all([run('tell'), run('tell'), run('tell')]);
    expect(new Set([a, b, c]).size).toBe(2);
  });

  it('tell what went wrong, and are not used again after that', async () => {
    const before = await run('tell');
    await expect(run('throw')).rejects.toThrow('it went wrong');
    await expect(run('exit')).rejects.toThrow('the thread ended');
    expect(await run('tell')).not.toBe(before);
  });

  it.each(['wait', 'hang'] as const)('can be stopped where they %s', async (what) => {
    const stop = new AbortController();
    const stopped = run(what, stop.signal, () => stop.abort());
    await expect(stopped).rejects.toThrow('cancelled');
    expect(await run('tell')).toBeGreaterThan(0);
  });

  it('do not begin what was stopped while it waited', async () => {
    const stop = new AbortController();
    stop.abort();
    let begun = 0;
    await expect(run('tell', stop.signal, () => (begun += 1))).rejects.toThrow('cancelled');
    expect(begun).toBe(0);
  });
});
