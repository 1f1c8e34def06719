import type { Source } from '@core/master/source';
import type { Span } from '@core/pass/spans';
import { TroubleError } from '@core/trouble/trouble';
import { Signal } from '../worker/signal';
import type { LaneEvent, LaneOrder } from './lane-protocol';
import { workerTrouble } from '../worker/worker-trouble';
import { throwIfStopped } from '../worker/serve-task';

export type SeenEvent = Extract<LaneEvent, { type: 'seen' }>;

/**
 * Spans that are looked at side by side. One decoder leaves a part of two cores idle, since its threads wait for each
 * other; a second one fills that.
 */
const LANES = 2;
/** Samples of a picture above which one decoder's frames are memory enough: a little over 1920 × 1088. */
const LARGE = 2_100_000;
/** Pictures of a span above which it waits for its turn, so that what is seen of it need not be kept. */
const LONG = 1800;

/** Result of a span, until it is its turn to be taken. */
interface SpanResult {
  events: SeenEvent[];
  through: boolean;
}

/** Has spans of a master looked at by workers side by side, and hands on what they saw in the file's order. */
export class PassLanes {
  private readonly workers: Worker[];
  private readonly results: SpanResult[] = [];
  private readonly bell = new Signal();
  private next = 0;
  private failure: unknown = null;

  /** @param url of the lane worker. @param onSeen told how many frames were seen, in whatever order. */
  constructor(
    url: string,
    source: Source,
    private readonly spans: readonly Span[],
    private readonly onSeen: (frames: number) => void,
  ) {
    const { width, height } = source.coded;
    const lanes = width * height > LARGE ? 1 : Math.min(LANES, spans.length);
    this.workers = Array.from({ length: lanes }, () => {
      const worker = new Worker(url, { type: 'module' });
      const order: LaneOrder = { type: 'open', source };
      worker.onerror = (event) => this.fail(workerTrouble(event));
      worker.onmessageerror = () => this.fail(new TroubleError('worker-answer'));
      worker.postMessage(order);
      return worker;
    });
  }

  /**
   * Yields the measurements of every span, one after another.
   * @throws TroubleError of a lane, or `cancelled`.
   */
  async *seen(signal: AbortSignal): AsyncGenerator<SeenEvent, void, undefined> {
    const wake = () => this.bell.ring();
    signal.addEventListener('abort', wake);
    const idle = [...this.workers];
    try {
      for (let turn = 0; turn < this.spans.length; turn++) {
        for (;;) {
          throwIfStopped(signal);
          if (this.failure !== null) throw this.failure;
          while (idle.length > 0 && this.mayBegin(turn)) this.begin(idle.pop() as Worker, idle);
          const taken = this.results[turn];
          const event = taken?.events.shift();
          if (event) yield event;
          else if (taken?.through) break;
          else await this.bell.rung();
        }
        delete this.results[turn];
      }
    } finally {
      signal.removeEventListener('abort', wake);
    }
  }

  /** Ends the workers; what was not handed on is let go. */
  close(): void {
    for (const worker of this.workers) worker.terminate();
    for (const taken of this.results) taken?.events.forEach(closeTiles);
  }

  /** The next span begins when its turn is near, and at its turn when it is long. */
  private mayBegin(turn: number): boolean {
    const span = this.spans[this.next];
    if (!span) return false;
    return this.next === turn || (span.pictures <= LONG && this.next < turn + 2 * LANES);
  }

  private begin(worker: Worker, idle: Worker[]): void {
    const span = this.spans[this.next] as Span;
    const taken: SpanResult = { events: [], through: false };
    this.results[this.next] = taken;
    this.next += 1;
    worker.onmessage = ({ data }: MessageEvent<LaneEvent>) => {
      if (data.type === 'failed') return this.fail(TroubleError.of(data.trouble));
      if (data.type === 'seen') {
        taken.events.push(data);
        this.onSeen(data.seen.length);
      } else {
        taken.through = true;
        idle.push(worker);
      }
      this.bell.ring();
    };
    const order: LaneOrder = { type: 'look', span };
    worker.postMessage(order);
  }

  private fail(error: unknown): void {
    this.failure ??= error;
    this.bell.ring();
  }
}

/** Lets go of the pictures of an event. */
export function closeTiles({ seen }: SeenEvent): void {
  for (const { tile } of seen) tile?.close();
}
