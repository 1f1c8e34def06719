import { stat } from 'node:fs/promises';
import { Queue, QueueEvents } from 'bullmq';
import { Redis } from 'ioredis';
import { TroubleError } from '../../src/core/trouble/trouble';
import { errorOf } from '../render/failure';
import type { RenderOrder } from '../render/order';
import type { SegmentMaker } from '../render/render';
import { Desk } from './desk';
import { type ErrandTicket, QUEUE, readFailure } from './protocol';

/** A segment whose way to us breaks is tried so often, the first pause in milliseconds. */
const TRIES = 6;
const PAUSE = 500;
/** What the queue knows of a segment that ended is forgotten after so long, in seconds. */
const REMEMBERED = 600;

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** Workers cannot be had as it was asked. */
export class UnreachableError extends Error {}

/** Workers on any number of machines that make segments: found by Redis, served by a desk. */
export class Fleet {
  private constructor(
    private readonly desk: Desk,
    private readonly queue: Queue<ErrandTicket>,
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
      throw new UnreachableError(`Redis cannot be reached at REDIS_URL: ${messageOf(error)}`);
    });
    const second = first.duplicate();
    const desk = await Desk.open(address).catch((error: Error) => {
      for (const connection of [first, second]) connection.disconnect();
      throw new UnreachableError(`Workers cannot be served at ${address}: ${error.message}`);
    });
    const queue = new Queue<ErrandTicket>(QUEUE, { connection: first });
    const events = new QueueEvents(QUEUE, { connection: second });
    const tell = (error: Error) => console.error(error.message);
    queue.on('error', tell);
    events.on('error', tell);
    await events.waitUntilReady();
    return new Fleet(desk, queue, events, [first, second]);
  }

  /** What makes the segments of an order. */
  makerFor(order: RenderOrder): SegmentMaker {
    return { make: (task, onFrame, signal) => this.make({ order, task, onFrame }, signal) };
  }

  async close(): Promise<void> {
    await this.events.close();
    await this.queue.close();
    for (const connection of this.connections) connection.disconnect();
    this.desk.close();
  }

  private async make(wanted: Parameters<Desk['issue']>[0], signal: AbortSignal): Promise<number> {
    if (signal.aborted) throw new TroubleError('cancelled');
    const ticket = this.desk.issue(wanted);
    try {
      const job = await this.queue.add(
        'segment',
        { ticket },
        {
          ...{ attempts: TRIES, backoff: { type: 'exponential', delay: PAUSE } },
          ...{ removeOnComplete: { age: REMEMBERED }, removeOnFail: { age: REMEMBERED } },
        },
      );
      const stopped = new Promise<never>((_, reject) =>
        signal.addEventListener('abort', () => reject(new TroubleError('cancelled')), { once: true }),
      );
      const made = job.waitUntilFinished(this.events).catch((error: Error) => {
        throw errorOf(readFailure(error.message));
      });
      await Promise.race([made, stopped]).catch(async (error: unknown) => {
        made.catch(() => undefined);
        // One that a worker has in hand cannot be taken away from it; it learns that nobody waits.
        await job.remove().catch(() => undefined);
        throw error;
      });
      return (await stat(wanted.task.file)).size;
    } finally {
      this.desk.revoke(ticket);
    }
  }
}
