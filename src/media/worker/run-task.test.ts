import { z } from 'zod';
import { TroubleError } from '@core/trouble/trouble';
import { runTask } from './run-task';

/** A worker that does what the test says. */
class FakeWorker {
  static latest: FakeWorker;
  onmessage: (event: { data: unknown }) => void = () => undefined;
  onerror: (event: { message: string }) => void = () => undefined;
  onmessageerror: () => void = () => undefined;
  readonly orders: { type: string }[] = [];
  ended = false;

  constructor() {
    FakeWorker.latest = this;
  }
  postMessage(order: { type: string }): void {
    this.orders.push(order);
  }
  terminate(): void {
    this.ended = true;
  }
}

const options = { progress: z.object({ done: z.number() }), result: z.string() };
const start = (more: object = {}) => {
  const running = runTask('stills', { ask: 1 }, { ...options, ...more });
  return {
    running,
    worker: FakeWorker.latest,
    tell: (data: unknown) => FakeWorker.latest.onmessage({ data }),
  };
};

beforeEach(() => Object.assign(globalThis, { Worker: FakeWorker }));

describe('a task', () => {
  it('sends its request, hears progress, and ends its worker with the result', async () => {
    const heard: number[] = [];
    const { running, worker, tell } = start({ onProgress: ({ done }: { done: number }) => heard.push(done) });
    expect(worker.orders).toEqual([{ type: 'start', request: { ask: 1 } }]);
    tell({ type: 'progress', progress: { done: 1 } });
    tell({ type: 'progress', progress: { done: 2 } });
    tell({ type: 'done', result: 'made' });
    expect(await running).toBe('made');
    expect(heard).toEqual([1, 2]);
    expect(worker.ended).toBe(true);
  });

  it.each([
    ['no event', 'hello'],
    ['progress of another shape', { type: 'progress', progress: { done: 'all' } }],
    ['a result of another shape', { type: 'done', result: 7 }],
    ['a trouble that is none', { type: 'failed', trouble: { code: 'made-up', values: {} } }],
    ['a trouble without its values', { type: 'failed', trouble: { code: 'damaged', values: { file: 'a' } } }],
  ])('settles when the worker tells %s', async (_, data) => {
    const { running, worker, tell } = start();
    expect(() => tell(data)).not.toThrow();
    await expect(running).rejects.toMatchObject({ trouble: { code: 'worker-answer' } });
    expect(worker.ended).toBe(true);
  });

  it('settles when what the worker tells cannot be read at all', async () => {
    const { running, worker } = start();
    worker.onmessageerror();
    await expect(running).rejects.toMatchObject({ trouble: { code: 'worker-answer' } });
  });

  it('hands a trouble on with its code and values', async () => {
    const { running, tell } = start();
    tell({ type: 'failed', trouble: { code: 'no-video', values: { file: 'a.mp4' } } });
    await expect(running).rejects.toMatchObject({ trouble: { code: 'no-video', values: { file: 'a.mp4' } } });
  });

  it('tells a worker to stop, and waits for it to clean up', async () => {
    const stop = new AbortController();
    const { running, worker, tell } = start({ signal: stop.signal });
    stop.abort();
    expect(worker.orders.map((order) => order.type)).toEqual(['start', 'cancel']);
    expect(worker.ended).toBe(false);
    tell({ type: 'failed', trouble: { code: 'cancelled', values: {} } });
    await expect(running).rejects.toBeInstanceOf(TroubleError);
    expect(worker.ended).toBe(true);
  });

  it('ends a worker that does not stop', async () => {
    jest.useFakeTimers();
    const stop = new AbortController();
    const { running, worker } = start({ signal: stop.signal });
    stop.abort();
    jest.advanceTimersByTime(5000);
    jest.useRealTimers();
    await expect(running).rejects.toMatchObject({ trouble: { code: 'cancelled' } });
    expect(worker.ended).toBe(true);
  });

  it('fails when its worker breaks, and is not begun after a stop', async () => {
    const { running, worker } = start();
    worker.onerror({ message: 'out of memory' });
    await expect(running).rejects.toMatchObject({ trouble: { values: { detail: 'out of memory' } } });
    await expect(start({ signal: AbortSignal.abort() }).running).rejects.toMatchObject({
      trouble: { code: 'cancelled' },
    });
  });
});
