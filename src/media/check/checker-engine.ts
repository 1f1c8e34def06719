import { CheckBoard } from '@core/check/check-board';
import type { CheckContext } from '@core/check/check-input';
import { safeFixes } from '@core/check/fix-all';
import { findTriedSize } from '@core/check/size-trial';
import { createBitrateAdvisor } from '@core/trial/bitrate-advisor';
import { reuseStructure } from '@core/figures/reuse-structure';
import type { CheckEvent, CheckOrder } from './check-protocol';

/** The checker's side in its worker: remembers every job that it judged, and what each rule looked at. */
export class CheckerEngine {
  private readonly boards = new Map<string, CheckBoard>();
  private last: CheckOrder | null = null;
  private latest = 0;

  constructor(private readonly tell: (event: CheckEvent) => void) {}

  /** Judges the jobs of an order one after another, until another order comes; always answers. */
  async obey(order: CheckOrder): Promise<void> {
    this.latest = order.ask;
    try {
      await this.judge(order);
    } catch (error) {
      const detail = error instanceof Error ? error.message : String(error);
      this.tell({ type: 'failed', ask: order.ask, detail });
    }
  }

  private async judge(order: CheckOrder): Promise<void> {
    const { jobs, sheets, passes, sizes, trials, fixes, ask } = this.sharedWithLast(order);
    const getPass = (fingerprint: string) => passes.find((pass) => pass.fingerprint === fingerprint) ?? null;
    const advisedOf = createBitrateAdvisor(trials, sheets);
    const known: CheckContext = {
      ...{ sheets, passOf: getPass, advisedOf },
      triedOf: (subject) => findTriedSize(sizes, subject, advisedOf),
    };
    for (const [done, { id, work }] of jobs.entries()) {
      if (this.latest !== ask) return;
      const board = this.boards.get(id) ?? new CheckBoard();
      this.boards.set(id, board);
      const found = { cells: board.check(work, known), fixes: fixes ? safeFixes(work, known) : [] };
      this.tell({ type: 'judged', ask, job: id, ...found, done: done + 1, total: jobs.length });
      // A newer order may wait.
      await new Promise((resolve) => setTimeout(resolve));
    }
  }

  /** Reuses the equal parts of the last order: values that came over from the page are all new objects. */
  private sharedWithLast(order: CheckOrder): CheckOrder {
    const known = new Map(this.last?.jobs.map((job) => [job.id, job]));
    const made = {
      ...order,
      jobs: order.jobs.map((job) => reuseStructure(known.get(job.id), job)),
      sheets: reuseStructure(this.last?.sheets, order.sheets),
      passes: reuseStructure(this.last?.passes, order.passes),
    };
    const asked = new Set(made.jobs.map(({ id }) => id));
    this.last = { ...made, jobs: [...made.jobs, ...[...known.values()].filter(({ id }) => !asked.has(id))] };
    return made;
  }
}
