/** Makes one segment in a thread of its own. */
import type { RenderOrder } from './order';
import { makeSegment, type SegmentTask } from './segment';
import { serveThread } from './serve-thread';

/** Data that the thread starts with. */
export interface SegmentThreadData {
  order: RenderOrder;
  task: SegmentTask;
}

serveThread(({ order, task }: SegmentThreadData, report: (frames: number) => void, signal) =>
  makeSegment(order, task, report, signal),
);
