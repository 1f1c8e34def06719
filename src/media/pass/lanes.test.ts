import type { Span } from '@core/pass/spans';
import { toSource } from '@core/master/source';
import { testMaster } from '@core/job/test-job';
import { TroubleError } from '@core/trouble/trouble';
import { PassLanes, type SeenEvent } from './lanes';
import type { LaneEvent, LaneOrder, FrameMeasurements } from './lane-protocol';

/** A lane that looks at a span when the test says so. */
class FakeLane {
  static all: FakeLane[] = [];
  onmessage: (event: { data: LaneEvent }) => void = () => undefined;
  onerror: (event: { message: string }) => void = () => undefined;
  orders: LaneOrder[] = [];
  ended = false;

  constructor() {
    FakeLane.all.push(this);
  }
  postMessage(order: LaneOrder): void {
    this.orders.push(order);
  }
  terminate(): void {
    this.ended = true;
  }
  /** The stamp of the span that it was told to look at last. */
  get start(): number | null {
    const order = this.orders[this.orders.length - 1];
    return order?.type === 'look' ? order.span.start : null;
  }
  see(...frames: number[]): void {
    this.onmessage({ data: { type: 'seen', seen: frames.map(seenOf), packets: [], config: null } });
  }
  end(): void {
    this.onmessage({ data: { type: 'through' } });
  }
}

const closed: number[] = [];
const seenOf = (frame: number): FrameMeasurements => ({
  frame,
  grey: { width: 1, height: 1, data: new Uint8Array(1) },
  bright: null,
  combs: null,
  order: null,
  tile: { close: () => closed.push(frame) } as unknown as VideoFrame,
});
const spans = (...pictures: number[]): Span[] => pictures.map((count, i) => ({ start: i, pictures: count }));
const turn = () => new Promise((resolve) => setTimeout(resolve, 0));

function start(divided: Span[], picture = { width: 1920, height: 1080 }) {
  const counts: number[] = [];
  const stop = new AbortController();
  const lanes = new PassLanes('lane.js', toSource(testMaster({ picture })), divided, (frames) =>
    counts.push(frames),
  );
  const frames: number[] = [];
  const done = (async () => {
    for await (const event of lanes.seen(stop.signal)) frames.push(...framesOf(event));
  })();
  done.catch(() => undefined);
  return { lanes, counts, stop, frames, done };
}
const framesOf = ({ seen }: SeenEvent): number[] => seen.map((seen) => seen.frame);
const laneAt = (start: number): FakeLane => FakeLane.all.find((lane) => lane.start === start)!;

beforeEach(() => {
  FakeLane.all = [];
  closed.length = 0;
  Object.assign(globalThis, { Worker: FakeLane });
});

describe('lanes of a pass', () => {
  it('look at two spans at once, and hand on what they saw in order', async () => {
    const { frames, counts, done } = start(spans(60, 60, 60));
    await turn();
    expect(FakeLane.all.map((lane) => lane.orders[0]?.type)).toEqual(['open', 'open']);
    laneAt(1).see(60, 61);
    laneAt(1).end();
    await turn();
    expect(frames).toEqual([]);
    // The lane that is through goes on with the next span.
    expect(FakeLane.all.map((lane) => lane.start).sort()).toEqual([0, 2]);
    laneAt(0).see(0, 1);
    await turn();
    expect(frames).toEqual([0, 1]);
    laneAt(2).see(120);
    laneAt(2).end();
    laneAt(0).end();
    await done;
    expect(frames).toEqual([0, 1, 60, 61, 120]);
    expect(counts).toEqual([2, 2, 1]);
  });

  it('run ahead by a few spans only, and never with a long one', async () => {
    start(spans(60, 60, 60, 60, 60, 60));
    await turn();
    for (const start of [1, 2, 3]) {
      laneAt(start).end();
      await turn();
    }
    expect(FakeLane.all.map((lane) => lane.start).sort()).toEqual([0, 3]);
    FakeLane.all = [];
    start(spans(60, 9000, 60));
    await turn();
    expect(FakeLane.all.map((lane) => lane.start).filter((start) => start !== null)).toEqual([0]);
    laneAt(0).end();
    await turn();
    expect(laneAt(1)).toBeDefined();
    expect(laneAt(2)).toBeDefined();
  });

  it('are as many as there is work and memory for', () => {
    start(spans(500));
    expect(FakeLane.all).toHaveLength(1);
    FakeLane.all = [];
    start(spans(60, 60, 60), { width: 3840, height: 2160 });
    expect(FakeLane.all).toHaveLength(1);
  });

  it('pass a trouble on with its code, also of a span whose turn has not come', async () => {
    const { done } = start(spans(60, 60));
    await turn();
    laneAt(1).onmessage({
      data: { type: 'failed', trouble: { code: 'pixel-format', values: { format: 'RGBA' } } },
    });
    await expect(done).rejects.toMatchObject({
      trouble: { code: 'pixel-format', values: { format: 'RGBA' } },
    });
  });

  it('end with what a worker died of', async () => {
    const { done } = start(spans(60, 60));
    await turn();
    laneAt(0).onerror({ message: 'out of memory' });
    await expect(done).rejects.toMatchObject({
      trouble: { code: 'worker-ended', values: { detail: 'out of memory' } },
    });
  });

  it('stop while nothing comes, end their workers and let go of what was not handed on', async () => {
    const { done, stop, lanes, frames } = start(spans(60, 60));
    await turn();
    laneAt(1).see(60, 61);
    stop.abort();
    await expect(done).rejects.toEqual(new TroubleError('cancelled'));
    lanes.close();
    expect(frames).toEqual([]);
    expect(closed).toEqual([60, 61]);
    expect(FakeLane.all.every((lane) => lane.ended)).toBe(true);
  });

  it('have nothing to tell of a file without a key frame', async () => {
    const { done, frames } = start([]);
    await done;
    expect(frames).toEqual([]);
  });
});
