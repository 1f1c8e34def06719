/** Round trips of tasks: from asking to the answer, in workers of their own. */
import { computeMedian } from '../src/core/figures/median';
import { readCaptions } from '../src/media/worker/tasks';

const ROUNDS = 15;
const CAPTIONS = new TextEncoder().encode('WEBVTT\n\n00:00.000 --> 00:01.000\nKites\n');

/** Measures how long an act takes, in milliseconds. */
async function measureMs(act: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await act();
  return performance.now() - start;
}

/** Starts a module worker that only answers, and ends it. */
async function askBareWorker(url: string): Promise<void> {
  const worker = new Worker(url, { type: 'module' });
  await new Promise((resolve) => {
    worker.onmessage = resolve;
    worker.postMessage(null);
  });
  worker.terminate();
}

/** Milliseconds of the smallest task, and of a worker that does nothing, in turn; medians. */
export async function taskTimes(): Promise<{ task: number; bare: number }> {
  const script = new Blob(['self.onmessage = () => self.postMessage(null);'], { type: 'text/javascript' });
  const url = URL.createObjectURL(script);
  const [tasks, bares]: [number[], number[]] = [[], []];
  for (let round = 0; round < ROUNDS; round++) {
    tasks.push(await measureMs(() => readCaptions({ bytes: CAPTIONS })));
    bares.push(await measureMs(() => askBareWorker(url)));
  }
  URL.revokeObjectURL(url);
  return { task: computeMedian(tasks), bare: computeMedian(bares) };
}
