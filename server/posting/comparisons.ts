import { setTimeout as wait } from 'node:timers/promises';
import PQueue from 'p-queue';
import { waitBefore } from '../../src/core/posting/retry';
import { OutletClientError } from './outlet-connection';
import type { PostingRecord } from './posting-records';

/** Posts that are compared at a time, and how often one is tried. */
const [COMPARED_AT_ONCE, COMPARE_TRIES] = [2, 8];

/** Holds posts that are up against what was sent, beside all else: their outlets may be busy. */
export class Comparisons {
  private readonly queue = new PQueue({ concurrency: COMPARED_AT_ONCE });
  private readonly running = new Map<string, { work: Promise<void>; stop: AbortController }>();
  private ended = false;

  /** @param compare one post; what comes of it is told by itself. */
  constructor(private readonly compare: (record: PostingRecord, signal: AbortSignal) => Promise<void>) {}

  /** Compares a post as soon as others are done, where that is not under way. */
  add(record: PostingRecord): void {
    if (this.ended || this.running.has(record.id)) return;
    const stop = new AbortController();
    const work = this.queue
      .add(() => this.compareAtLength(record, stop.signal))
      // It is up all the same.
      .catch(() => undefined)
      .then(() => void this.running.delete(record.id));
    this.running.set(record.id, { work, stop });
  }

  /** Stops the comparison of a post; resolves when nothing is done with it any more. */
  async halt(id: string): Promise<void> {
    const one = this.running.get(id);
    one?.stop.abort();
    await one?.work;
  }

  async close(): Promise<void> {
    this.ended = true;
    await Promise.all([...this.running.keys()].map((id) => this.halt(id)));
  }

  /** Compares, and tries again where the outlet cannot be asked at once. */
  private async compareAtLength(record: PostingRecord, signal: AbortSignal): Promise<void> {
    for (let tries = 1; !signal.aborted; tries++) {
      try {
        return await this.compare(record, signal);
      } catch (error) {
        if (!(error instanceof OutletClientError) || tries === COMPARE_TRIES) throw error;
        await wait(1000 * waitBefore(tries, error.retryAfter, Math.random()), undefined, { signal });
      }
    }
  }
}
