/** Makes segments in a thread of its own: one after another, as it is asked. */
import { parentPort, workerData } from 'node:worker_threads';
import type { RenderOrder } from './order';
import { makeSegment, type SegmentTask } from './segment';

/** What the thread is asked, and what it answers. */
export type Asked = { type: 'make'; task: SegmentTask } | { type: 'stop' };
export type Answer =
  { type: 'frame'; done: number } | { type: 'made'; bytes: number } | { type: 'failed'; reason: string };

const order = workerData as RenderOrder;
const stop = new AbortController();
const tell = (answer: Answer): void => parentPort?.postMessage(answer);

parentPort?.on('message', (asked: Asked) => {
  if (asked.type === 'stop') return stop.abort();
  makeSegment(order, asked.task, (done) => tell({ type: 'frame', done }), stop.signal).then(
    ({ bytes }) => tell({ type: 'made', bytes }),
    (error: unknown) =>
      tell({ type: 'failed', reason: error instanceof Error ? error.message : String(error) }),
  );
});
