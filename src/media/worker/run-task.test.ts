import { TroubleError } from '@core/trouble/trouble';
import { runTask } from './run-task';

/** A worker that does what the test says. */
class FakeWorker {
  static latest: FakeWorker;
  onmessage: (event: { data: unknown }) => void = () => undefined;
  onerror: (event: { message?: string }) => void = () => undefined;
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

const REQUEST = { name: 'all.zip', texts: [], files: [] };
const start = (more: object = {}) => {
  const running = runTask('pack', REQUEST, more);
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
    expect(worker.orders).toEqual([{ type: 'start', request: REQUEST }]);
    tell({ type: 'progress', progress: { stage: 'pack', done: 1, total: 2 } });
    tell({ type: 'progress', progress: { stage: 'pack', done: 2, total: 2 } });
    tell({ type: 'done', result: 7 });
    expect(await running).toBe(7);
    expect(heard).toEqual([1, 2]);
    expect(worker.ended).toBe(true);
  });

  it.each([
    ['no event', 'hello'],
    ['progress of another shape', { type: 'progress', progress: { stage: 'pack', done: 'all', total: 2 } }],
    ['a result of another shape', { type: 'done', result: 'made' }],
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

  it('says so where the code of its worker does not come', async () => {
    const { running, worker } = start();
    worker.onerror({});
    await expect(running).rejects.toMatchObject({ trouble: { code: 'worker-code' } });
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
