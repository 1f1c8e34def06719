import { TroubleError, toTrouble } from '@core/trouble/trouble';
import { awaitOutcome, type Task, TaskQueue } from './task';

const never = new AbortController().signal;
const task = (change: Partial<Task<string>> = {}) => ({
  run: jest.fn((_signal: AbortSignal) => Promise.resolve('made')),
  clean: jest.fn(() => Promise.resolve()),
  trouble: (error: unknown) => toTrouble(error, 'export-failed', {}),
  ...change,
});
/** Runs until it is stopped. */
const endless = () =>
  task({
    run: jest.fn(
      (signal: AbortSignal) =>
        new Promise<string>((_, reject) =>
          signal.addEventListener('abort', () => reject(new TroubleError('cancelled'))),
        ),
    ),
  });

describe('a task', () => {
  it('ends with what it made, and cleans nothing up', async () => {
    const bringing = task();
    expect(await awaitOutcome(bringing, never)).toEqual({ state: 'done', result: 'made' });
    expect(bringing.clean).not.toHaveBeenCalled();
  });

  it('that fails says why, and removes what it made', async () => {
    const bringing = task({ run: () => Promise.reject(new Error('odd')) });
    expect(await awaitOutcome(bringing, never)).toMatchObject({
      state: 'failed',
      trouble: { code: 'export-failed' },
    });
    expect(bringing.clean).toHaveBeenCalledTimes(1);
  });

  it('that is cancelled in its very last moment is cancelled, and removes what it made', async () => {
    const stop = new AbortController();
    const bringing = task({
      run: () => {
        stop.abort();
        return Promise.resolve('made');
      },
    });
    expect(await awaitOutcome(bringing, stop.signal)).toEqual({ state: 'cancelled' });
    expect(bringing.clean).toHaveBeenCalledTimes(1);
  });

  it('settles also when its clean-up fails', async () => {
    const told = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    const bringing = task({
      run: () => Promise.reject(new Error('odd')),
      clean: () => Promise.reject(new Error('locked')),
    });
    expect(await awaitOutcome(bringing, never)).toMatchObject({ state: 'failed' });
    expect(told).toHaveBeenCalled();
    told.mockRestore();
  });
});

describe('a queue', () => {
  it('runs one after another, whatever becomes of each', async () => {
    const queue = new TaskQueue();
    const order: string[] = [];
    const told = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    const named = (name: string, fails: boolean) =>
      task({
        run: async () => {
          order.push(name);
          await Promise.resolve();
          if (fails) throw new Error(name);
          return name;
        },
        clean: () => Promise.reject(new Error('locked')),
      });
    const ends = await Promise.all(['a', 'b', 'c'].map((name, i) => queue.add(name, named(name, i < 2))));
    expect(order).toEqual(['a', 'b', 'c']);
    expect(ends.map((end) => end.state)).toEqual(['failed', 'failed', 'done']);
    told.mockRestore();
  });

  it('ends at once what is cancelled while it waits, and goes on with the next', async () => {
    const queue = new TaskQueue();
    const first = endless();
    const second = task();
    const third = task();
    const running = queue.add('first', first);
    const waiting = queue.add('second', second);
    const last = queue.add('third', third);
    queue.cancel('second');
    expect(await waiting).toEqual({ state: 'cancelled' });
    expect(second.run).not.toHaveBeenCalled();
    expect(second.clean).toHaveBeenCalledTimes(1);
    queue.cancel('first');
    expect(await running).toEqual({ state: 'cancelled' });
    expect(await last).toEqual({ state: 'done', result: 'made' });
    expect(queue.has('first') || queue.has('second') || queue.has('third')).toBe(false);
  });

  it('cancels one when another of its name comes', async () => {
    const queue = new TaskQueue();
    const before = queue.add('same', endless());
    const after = queue.add('same', task());
    expect(await before).toEqual({ state: 'cancelled' });
    expect(await after).toEqual({ state: 'done', result: 'made' });
  });
});
