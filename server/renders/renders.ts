import { EventEmitter } from 'node:events';
import { mkdirSync } from 'node:fs';
import { mkdir, readdir, rm } from 'node:fs/promises';
import path from 'node:path';
import PQueue from 'p-queue';
import type { RandomId } from '../../src/core/figures/random-id';
import { type RenderRequest, renderRequestSchema, type RenderState } from '../../src/core/job/render-service';
import type { RenderFault } from '../../src/core/render/render-faults';
import { TroubleError } from '../../src/core/trouble/trouble';
import type { Fleet } from '../fleet/fleet';
import { renderFile, type SegmentMaker } from '../render/render';
import { VERSION } from '../render/version';
import { createId } from '../store/create-id';
import { whenWritable } from '../store/when-writable';
import type { RenderRefusal } from './resolve-request';
import type { RenderOrders } from './render-orders';
import type { RenderRecords } from './render-records';

/** A render that waits or runs in this process. */
interface RunningRender {
  stop: AbortController;
  now: RenderState;
  /** Settles, never rejects, when it ended. */
  ended: Promise<void>;
}

/** A file over which the server ended so often is not begun again: it would keep all else from being done. */
const MAX_STARTS = 5;
/** Files in hand at a time where workers make them. */
const AT_ONCE = 4;

/** Makes files that browsers ask for: recorded first, one at a time; what the server's end stops is taken up again. */
export class Renders {
  private readonly queue: PQueue;
  private readonly active = new Map<string, RunningRender>();
  private readonly news = new EventEmitter().setMaxListeners(0);
  private closed = false;

  constructor(
    private readonly records: RenderRecords,
    private readonly orders: RenderOrders,
    private readonly folder: string,
    private readonly fleet: Fleet | null,
  ) {
    // Where many make them, several are in hand, so that short ones leave nobody idle.
    this.queue = new PQueue({ concurrency: fleet ? AT_ONCE : 1 });
    mkdirSync(folder, { recursive: true });
  }

  /** Takes up what a server that ended left waiting. */
  resume(): void {
    for (const id of this.records.waiting()) this.start(id);
  }

  /** Begins a file. @returns its id, or why not. */
  async begin(
    visitor: string,
    request: RenderRequest,
  ): Promise<{ id: RandomId } | { refused: RenderRefusal }> {
    const asked = await this.orders.resolve(visitor, request);
    if (typeof asked === 'string') return { refused: asked };
    const id = createId();
    this.records.begin(id, visitor, JSON.stringify(request));
    this.start(id);
    return { id };
  }

  /** Where one stands; null for one that this browser did not ask for. */
  find(id: string, visitor: string | null): RenderState | null {
    const record = this.records.find(id);
    if (!record || record.visitor !== visitor) return null;
    const active = this.active.get(id);
    if (active) return active.now;
    if (record.state === 'done') return { state: 'done', bytes: record.bytes ?? 0 };
    if (record.state === 'failed') return { state: 'failed', fault: record.fault ?? 'broken' };
    return { state: 'queued' };
  }

  /** Is told of every change of one, until it is called off. */
  follow(id: string, tell: (state: RenderState) => void): () => void {
    this.news.on(id, tell);
    return () => this.news.off(id, tell);
  }

  getFile(id: RandomId): string {
    return path.join(this.folder, `${id}.file`);
  }

  /** Stops one and forgets all of it. */
  async forget(id: RandomId): Promise<void> {
    const active = this.active.get(id);
    active?.stop.abort();
    await active?.ended;
    this.records.forget(id);
    for (const name of [this.getFile(id), this.toPartsFolder(id)])
      await rm(name, { recursive: true, force: true });
  }

  /** Forgets those that are older than a moment, and files that no record knows. */
  async sweep(before: number): Promise<void> {
    for (const id of this.records.madeBefore(before)) if (!this.active.has(id)) await this.forget(id);
    for (const name of await readdir(this.folder)) {
      if (this.records.find(name.slice(0, 32))) continue;
      await rm(path.join(this.folder, name), { recursive: true, force: true });
    }
  }

  /** Stops what is made; it is taken up by the next server. Resolves when nothing writes any more. */
  async close(): Promise<void> {
    this.closed = true;
    const active = [...this.active.values()];
    for (const { stop } of active) stop.abort();
    await Promise.all(active.map(({ ended }) => ended));
  }

  private toPartsFolder(id: RandomId): string {
    return path.join(this.folder, `${id}.parts`);
  }

  /** Where its parts lie; what a server of another version began goes, since that cut and encoded otherwise. */
  private async partsOfNow(id: RandomId): Promise<string> {
    const parts = this.toPartsFolder(id);
    await mkdir(parts, { recursive: true });
    for (const name of await readdir(parts)) {
      if (name !== VERSION) await rm(path.join(parts, name), { recursive: true, force: true });
    }
    return path.join(parts, VERSION);
  }

  private start(id: RandomId): void {
    const stop = new AbortController();
    const active: RunningRender = { stop, now: { state: 'queued' }, ended: Promise.resolve() };
    this.active.set(id, active);
    active.ended = this.queue
      .add(() => this.make(id, active))
      .catch((error: unknown) => console.error(error))
      .then(() => void this.active.delete(id));
  }

  /** Makes one, and records how it ended; what the server's own end stopped stays recorded as waiting. */
  private async make(id: RandomId, active: RunningRender): Promise<void> {
    const { signal } = active.stop;
    const { fleet } = this;
    const tell = (now: RenderState) => {
      active.now = now;
      this.news.emit(id, now);
    };
    try {
      const record = this.records.find(id);
      if (!record || signal.aborted) return;
      const starts = await whenWritable(() => this.records.countStart(id));
      if (starts > MAX_STARTS) return await this.fail(id, 'ended-server', tell);
      const request = renderRequestSchema.parse(JSON.parse(record.asked));
      const asked = await this.orders.resolve(record.visitor, request, signal);
      if (typeof asked === 'string') throw new Error(asked);
      const { bytes } = await renderFile(asked.order, {
        ...{ folder: await this.partsOfNow(id), to: this.getFile(id), signal },
        ...(fleet && { maker: (own: SegmentMaker) => fleet.createMaker(asked.order, own) }),
        onProgress: ({ done, total }) => tell({ state: 'running', done, total }),
      });
      await rm(this.toPartsFolder(id), { recursive: true, force: true });
      await whenWritable(() => this.records.done(id, bytes));
      tell({ state: 'done', bytes });
    } catch (error) {
      if (this.closed) return await whenWritable(() => this.records.undoStart(id));
      // One that is forgotten has no record any more.
      if (!signal.aborted) await this.fail(id, toFault(error), tell);
    }
  }

  private async fail(id: RandomId, fault: RenderFault, tell: (now: RenderState) => void): Promise<void> {
    await whenWritable(() => this.records.failed(id, fault));
    tell({ state: 'failed', fault });
  }
}

function toFault(error: unknown): RenderFault {
  if (error instanceof TroubleError && error.trouble.code === 'damaged') return 'damaged';
  if (error instanceof Error && /no space left|file too large|ENOSPC/i.test(error.message)) return 'no-room';
  console.error(error);
  return 'broken';
}
