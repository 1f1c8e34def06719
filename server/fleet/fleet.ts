import { stat } from 'node:fs/promises';
import { setTimeout as sleep } from 'node:timers/promises';
import { type Job, Queue, QueueEvents } from 'bullmq';
import { Redis } from 'ioredis';
import { TroubleError } from '../../src/core/trouble/trouble';
import { toError } from '../render/failure';
import type { RenderOrder } from '../render/order';
import type { SegmentMaker } from '../render/render';
import { WorkerGateway } from './worker-gateway';
import { createOnceLogger } from './say-once';
import { type SegmentTicket, QUEUE, readFailure } from './protocol';

/** A segment whose way to us breaks is tried so often, the first pause in milliseconds. */
const TRIES = 6;
const PAUSE = 500;
/** How long it may take to take leave of Redis, in milliseconds. */
const LEAVE = 2000;
/** How often a segment is looked after that nothing is heard of, in milliseconds. */
const LOOK_EVERY = 5000;
/** Age at which the queue forgets a segment that ended, in seconds. */
const REMEMBERED = 600;

const toMessage = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Workers cannot be had as it was asked. */
export class UnreachableError extends Error {}

/** Workers on any number of machines that make segments: found by Redis, served by a desk. */
export class Fleet {
  private constructor(
    private readonly desk: WorkerGateway,
    private readonly queue: Queue<SegmentTicket>,
    private readonly events: QueueEvents,
    private readonly connections: readonly Redis[],
  ) {}

  /**
   * @param redis address of the Redis that workers use too. @param address where workers reach our desk.
   * @throws UnreachableError where Redis cannot be reached, or the desk has no such address.
   */
  static async open(redis: string, address: string): Promise<Fleet> {
    const first = new Redis(redis, { maxRetriesPerRequest: null, lazyConnect: true });
    first.on('error', () => undefined);
    await first.connect().catch((error: unknown) => {
      first.disconnect();
      throw new UnreachableError(`Redis cannot be reached at REDIS_URL: ${toMessage(error)}`);
    });
    const second = first.duplicate();
    const desk = await WorkerGateway.open(address).catch((error: Error) => {
      for (const connection of [first, second]) connection.disconnect();
      throw new UnreachableError(`Workers cannot be served at ${address}: ${error.message}`);
    });
    const queue = new Queue<SegmentTicket>(QUEUE, { connection: first });
    const events = new QueueEvents(QUEUE, { connection: second });
    const tell = createOnceLogger();
    queue.on('error', tell);
    events.on('error', tell);
    await events.waitUntilReady();
    return new Fleet(desk, queue, events, [first, second]);
  }

  /** Creates what makes the segments of an order. @param own makes them while there is no worker. */
  createMaker(order: RenderOrder, own: SegmentMaker): SegmentMaker {
    return {
      make: async (task, onFrame, signal) =>
        (await this.make({ order, task, onFrame }, signal)) ?? own.make(task, onFrame, signal),
    };
  }

  async close(): Promise<void> {
    this.desk.close();
    // With a Redis that is away there is nothing to take leave of.
    const closed = Promise.all([this.events.close(), this.queue.close()]);
    await Promise.race([closed.catch(() => undefined), sleep(LEAVE)]);
    for (const connection of this.connections) connection.disconnect();
  }

  /** @returns bytes of the segment; null where there is no worker. */
  private async make(
    wanted: Parameters<WorkerGateway['issue']>[0],
    signal: AbortSignal,
  ): Promise<number | null> {
    if (signal.aborted) throw new TroubleError('cancelled');
    const ticket = this.desk.issue(wanted);
    const stopped = stop(signal);
    try {
      // A Redis that came back may have lost what waited in it: it is asked for again.
      let end: End = 'lost';
      while (end === 'lost') end = await Promise.race([this.awaitSegment(ticket), stopped.told]);
      return end === 'made' ? (await stat(wanted.task.file)).size : null;
    } finally {
      stopped.off();
      this.desk.revoke(ticket);
    }
  }

  /** Has the segment of a ticket made. */
  private async awaitSegment(ticket: string): Promise<End> {
    if ((await this.queue.getWorkersCount()) === 0) return 'nobody';
    const job = await this.queue.add(
      'segment',
      { ticket },
      {
        ...{ attempts: TRIES, backoff: { type: 'exponential', delay: PAUSE } },
        ...{ removeOnComplete: { age: REMEMBERED }, removeOnFail: { age: REMEMBERED } },
      },
    );
    const ended = new AbortController();
    const made = job.waitUntilFinished(this.events).then((): End => 'made');
    // Whoever loses the race has nothing more to say.
    made.catch(() => undefined);
    try {
      return await Promise.race([made, this.watched(job, ended.signal)]);
    } catch (error) {
      throw toError(readFailure(toMessage(error)));
    } finally {
      ended.abort();
    }
  }

  /** Looks after a segment that nothing is heard of, for as long as it is waited for. */
  private async watched(job: Job<SegmentTicket>, signal: AbortSignal): Promise<End> {
    for (;;) {
      await sleep(LOOK_EVERY, undefined, { signal }).catch(() => undefined);
      const state = signal.aborted ? 'completed' : await job.getState();
      if (state === 'completed') return 'made';
      if (state === 'unknown') return 'lost';
      if ((await this.queue.getWorkersCount()) === 0) return 'nobody';
    }
  }
}

/** How a segment's way over the queue ends: it is made, the queue lost it, or nobody is there to make it. */
type End = 'made' | 'lost' | 'nobody';

/** Tells of a stop, wherever the work is; what waits in the queue finds that nobody waits for it. */
function stop(signal: AbortSignal): { told: Promise<never>; off: () => void } {
  let off = (): void => undefined;
  const told = new Promise<never>((_, reject) => {
    const tell = () => reject(new TroubleError('cancelled'));
    signal.addEventListener('abort', tell);
    off = () => signal.removeEventListener('abort', tell);
  });
  told.catch(() => undefined);
  return { told, off };
}
