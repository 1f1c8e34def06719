import { mkdirSync, rmSync } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import path from 'node:path';
import PQueue from 'p-queue';
import type { RandomId } from '../../src/core/figures/random-id';
import type { TrialRequest, TrialState } from '../../src/core/trial/trial-service';
import { trialPlans } from '../../src/core/trial/rate-trial';
import type { TrialProgress } from '../render/rate-trial';
import { trialThreads } from '../render/threads';
import { type RateTrialJob, trialPicture } from '../render/trial-pieces';
import { createId } from '../store/create-id';
import type { RenderRefusal } from './resolve-request';
import type { RenderOrders } from './render-orders';

interface Trial {
  visitor: string;
  began: number;
  stop: AbortController;
  now: TrialState;
  /** Settles, never rejects, when it ended. */
  ended: Promise<void>;
}

/** Trials of bit rates, one at a time. They do not outlive the server: whoever wants one asks again. */
export class Trials {
  private readonly threads = trialThreads();
  private readonly queue = new PQueue({ concurrency: 1 });
  private readonly all = new Map<RandomId, Trial>();

  constructor(
    private readonly orders: RenderOrders,
    private readonly folder: string,
  ) {
    rmSync(folder, { recursive: true, force: true });
    mkdirSync(folder, { recursive: true });
  }

  /** Begins a trial. @returns its id, or why not. */
  async begin(
    visitor: string,
    request: TrialRequest,
  ): Promise<{ id: RandomId } | { refused: RenderRefusal }> {
    const asked = await this.orders.resolve(visitor, request);
    if (typeof asked === 'string') return { refused: asked };
    const { job, order } = asked;
    const id = createId();
    const known = new Set(job.masters.map((master) => master.id));
    if (request.trial.pieces.some(({ range }) => !known.has(range.master))) return { refused: 'no-canvas' };
    const work: RateTrialJob = {
      order: request.trial,
      plans: trialPlans(job, request.sheets, request.trial),
      making: order.making,
      masters: order.masters,
      folder: path.join(this.folder, id),
    };
    this.start(id, visitor, work);
    return { id };
  }

  /** Where one stands; null for one that this browser did not ask for. */
  find(id: RandomId, visitor: string | null): TrialState | null {
    const trial = this.all.get(id);
    return trial && trial.visitor === visitor ? trial.now : null;
  }

  toPicture(id: RandomId, kind: 'planned' | 'viewed', rate: number): string {
    return trialPicture(path.join(this.folder, id), kind, rate);
  }

  /** Stops one and forgets all of it. */
  async forget(id: RandomId): Promise<void> {
    const trial = this.all.get(id);
    trial?.stop.abort();
    await trial?.ended;
    this.all.delete(id);
    await rm(path.join(this.folder, id), { recursive: true, force: true });
  }

  /** Forgets those that ended and are older than a moment. */
  async sweep(before: number): Promise<void> {
    for (const [id, { began, now }] of this.all) {
      if (began < before && now.state !== 'running' && now.state !== 'queued') await this.forget(id);
    }
  }

  /** Stops all. */
  async close(): Promise<void> {
    const all = [...this.all.values()];
    for (const { stop } of all) stop.abort();
    await Promise.all(all.map(({ ended }) => ended));
    this.threads.close();
  }

  private start(id: RandomId, visitor: string, work: RateTrialJob): void {
    const stop = new AbortController();
    const trial: Trial = {
      ...{ visitor, stop, began: Date.now(), now: { state: 'queued' }, ended: Promise.resolve() },
    };
    this.all.set(id, trial);
    trial.ended = this.queue
      .add(async () => {
        await mkdir(work.folder, { recursive: true });
        const report = ({ done, total }: TrialProgress) => (trial.now = { state: 'running', done, total });
        const result = await this.threads.run(work, report, stop.signal);
        trial.now = { state: 'done', result };
      })
      .then(() => undefined)
      .catch((error: unknown) => {
        if (!stop.signal.aborted) console.error(error);
        trial.now = { state: 'failed' };
      });
  }
}
