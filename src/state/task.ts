import PQueue from 'p-queue';
import { type Trouble, TroubleError } from '@core/trouble/trouble';

/** How a task ended. It ended one of these ways, always. */
export type TaskOutcome<Result> =
  { state: 'done'; result: Result } | { state: 'failed'; trouble: Trouble } | { state: 'cancelled' };

/** Work of a task. */
export interface Task<Result> {
  /** Does it; rejects when it is stopped. */
  run(signal: AbortSignal): Promise<Result>;
  /** Removes all that it made. Called once, after it failed or was cancelled, in whatever stage that was. */
  clean(): Promise<void>;
  /** Turns an error of it into a trouble. */
  trouble(error: unknown): Trouble;
}

/**
 * Runs a task to one of its ends. Never rejects. A task that was cancelled is cancelled also when it came to its end
 * at that very moment; a failure of the clean-up itself is told to the console and holds nothing up.
 */
export async function awaitOutcome<Result>(
  task: Task<Result>,
  signal: AbortSignal,
): Promise<TaskOutcome<Result>> {
  let outcome: TaskOutcome<Result>;
  try {
    if (signal.aborted) throw new TroubleError('cancelled');
    outcome = { state: 'done', result: await task.run(signal) };
  } catch (error) {
    outcome = { state: 'failed', trouble: task.trouble(error) };
  }
  if (signal.aborted || (outcome.state === 'failed' && outcome.trouble.code === 'cancelled')) {
    outcome = { state: 'cancelled' };
  }
  if (outcome.state !== 'done') {
    await task
      .clean()
      .catch((error: unknown) => console.error('what a task left could not be removed', error));
  }
  return outcome;
}

/** Tasks of one kind, one after another. What becomes of one is nothing to the next. */
export class TaskQueue {
  private readonly queue = new PQueue({ concurrency: 1 });
  private readonly stops = new Map<string, AbortController>();
  private readonly ends = new Map<string, Promise<unknown>>();

  /** Queues a task under a name; one of the same name is cancelled by that. Resolves when it ended. */
  async add<Result>(name: string, task: Task<Result>): Promise<TaskOutcome<Result>> {
    this.cancel(name);
    const stop = new AbortController();
    this.stops.set(name, stop);
    // One that is cancelled while it waits ends at once, and is passed over when its turn comes.
    const waiting = new Promise<TaskOutcome<Result>>((resolve) =>
      stop.signal.addEventListener('abort', () => begun || resolve(awaitOutcome(task, stop.signal))),
    );
    let begun = false;
    const turn = this.queue.add(
      () => {
        if (stop.signal.aborted) return waiting;
        begun = true;
        return awaitOutcome(task, stop.signal);
      },
      { throwOnTimeout: true },
    );
    const end = Promise.race([turn, waiting]);
    this.ends.set(name, end);
    const outcome = await end;
    if (this.stops.get(name) === stop) {
      this.stops.delete(name);
      this.ends.delete(name);
    }
    return outcome;
  }

  /** Stops a task that waits or runs. */
  cancel(name: string): void {
    this.stops.get(name)?.abort();
  }

  /** Stops a task, and resolves once it has removed what it made. */
  async cancelled(name: string): Promise<void> {
    const end = this.ends.get(name);
    this.cancel(name);
    await end;
  }

  has(name: string): boolean {
    return this.stops.has(name);
  }
}
