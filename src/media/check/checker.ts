import { workerUrls } from '../worker/worker-urls';
import type { CheckEvent, CheckOrder, JudgedEvent } from './check-protocol';

/** The page's side of the checker: one worker, that remembers what it judged. */
export class Checker {
  private readonly worker = new Worker(workerUrls.checker, { type: 'module' });
  private ask = 0;

  /**
   * @param hear takes each job of the latest order as it is judged.
   * @param fail is told once that no more is to be expected: whoever owns this closes it, and opens another.
   */
  constructor(hear: (event: JudgedEvent) => void, fail: (detail: string) => void) {
    this.worker.onmessage = ({ data }: MessageEvent<CheckEvent>) => {
      if (data.ask !== this.ask) return;
      if (data.type === 'failed') fail(data.detail);
      else hear(data);
    };
    this.worker.onerror = ({ message }) => fail(message || 'no reason was given');
    this.worker.onmessageerror = () => fail('its answer could not be read');
  }

  /** Ends the worker. */
  close(): void {
    this.worker.terminate();
  }

  /** Judges jobs, in the place of whatever was asked before. */
  check(order: Omit<CheckOrder, 'ask'>): void {
    this.ask += 1;
    this.worker.postMessage({ ...order, ask: this.ask } satisfies CheckOrder);
  }
}
