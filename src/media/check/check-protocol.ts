import type { BoardCell } from '@core/check/check-board';
import type { FixStep } from '@core/check/fix-all';
import type { TriedSize } from '@core/check/size-trial';
import type { Work } from '@core/job/job';
import type { RuleSheet } from '@core/outlets/rule-sheet';
import type { RateTrial } from '@core/trial/rate-trial';
import type { AnalysisResult } from '@core/pass/pass';

/**
 * Order of the page to the checker: jobs to be judged by some sheets. A later order takes the place of an
 * earlier.
 */
export interface CheckOrder {
  ask: number;
  jobs: { id: string; work: Work }[];
  sheets: RuleSheet[];
  /** Analyses of the masters' files. */
  passes: AnalysisResult[];
  /** Measured bitrates of pieces of their clips. */
  sizes: TriedSize[];
  /** Results of rate trials. */
  trials: RateTrial[];
  /** True when the safe fixes of each job are wanted too. */
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

/** Event of the checker: a job that was judged, or one that could not be, which ends the order. */
export type CheckEvent = JudgedEvent | { type: 'failed'; ask: number; detail: string };
