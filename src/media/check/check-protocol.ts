import type { BoardCell } from '@core/check/check-board';
import type { FixStep } from '@core/check/fix-all';
import type { TriedSize } from '@core/check/size-trial';
import type { Work } from '@core/job/job';
import type { RuleSheet } from '@core/outlets/rule-sheet';
import type { RateTrial } from '@core/trial/rate-trial';
import type { Pass } from '@core/pass/pass';

/** What the page tells the checker: jobs to be judged by some sheets. A later order takes the place of an earlier. */
export interface CheckOrder {
  ask: number;
  jobs: { id: string; work: Work }[];
  sheets: RuleSheet[];
  /** What is known of the masters' files. */
  passes: Pass[];
  /** What pieces of their clips came to. */
  sizes: TriedSize[];
  /** What trials of rates found. */
  trials: RateTrial[];
  /** Whether the safe fixes of each job are wanted too. */
  fixes?: boolean;
}

/** A job of an order as it is judged. */
export interface JudgedEvent {
  type: 'judged';
  ask: number;
  job: string;
  cells: BoardCell[];
  /** The safe fixes, where they were asked for. */
  fixes: FixStep[];
  done: number;
  total: number;
}

/** What it answers: each job, or that one could not be judged, which ends the order. */
export type CheckEvent = JudgedEvent | { type: 'failed'; ask: number; detail: string };
