import { activeClip, type Job } from '../../src/core/job/job';
import { createRequestedJob, type RenderRequest } from '../../src/core/job/render-service';
import { listOwnFamilies } from '../../src/core/render/overlays';
import { ownHash } from '../../src/core/words/families';
import type { RenderOrder } from '../render/order';
import { ThreadPool } from '../render/thread-pool';
import { builtProgram } from '../root';
import type { Masters } from './masters';
import type { ResolvedRequest, RenderRefusal } from './resolve-request';

/** A request for a file with all that it needs: its job on its canvas, and the order that follows from it. */
export interface RequestedRender {
  job: Job;
  order: RenderOrder;
}

/** Turns requests of browsers into orders with all files that they need. */
export class RenderOrders {
  private readonly threads = new ThreadPool<RenderRequest, never, ResolvedRequest | RenderRefusal>(
    builtProgram('order-thread'),
    1,
  );

  constructor(private readonly masters: Masters) {}

  /** Works out what a browser asks for, or why it cannot have it. @throws where `signal` says stop. */
  async resolve(
    visitor: string,
    request: RenderRequest,
    signal = new AbortController().signal,
  ): Promise<RequestedRender | RenderRefusal> {
    const job = createRequestedJob(request);
    if (!job) return 'no-canvas';
    const order = await this.threads.run(request, () => undefined, signal);
    if (typeof order === 'string') return order;
    const files: Record<string, string> = {};
    const used = new Set(activeClip(job.edit).cut.map(({ master }) => master));
    for (const { id, fingerprint } of job.masters) {
      if (!used.has(id)) continue;
      const file = await this.masters.fileOf(visitor, fingerprint);
      if (file === null) return 'master-missing';
      files[fingerprint] = file;
    }
    for (const family of listOwnFamilies(order.plan.overlays)) {
      const font = await this.masters.listByPrefix(visitor, ownHash(family));
      if (font === null) return 'font-missing';
      files[font.fingerprint] = font.file;
    }
    return { job, order: { ...order, masters: files } };
  }

  close(): void {
    this.threads.close();
  }
}
