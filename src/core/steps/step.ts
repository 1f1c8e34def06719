import type { Finding } from '../check/finding';
import type { Severity } from '../check/rule';
import type { Problem } from '../diagnosis/diagnosis';
import type { Job } from '../job/job';
import type { Sheets } from '../outlets/rule-sheet';

/** How something stands: a finding's severity, or not begun. */
export type Standing = Severity | 'open';

/** Input from which a step's state is computed. */
export interface StepInput {
  job: Job;
  sheets: Sheets;
  /** Of the canvas that is worked on; null while it is judged for the first time. */
  findings: readonly Finding[] | null;
  /** Of the job's masters. */
  problems: readonly Problem[];
}

/** Descriptor of a step of a job, one per file. */
export interface StepKind {
  title: string;
  /** Summarises what is settled and what is missing in a line, with its state. */
  stand(input: StepInput): { summary: string; standing: Standing };
}

/** The finding of a rule. */
export function findFinding<R extends Finding['rule']>(
  findings: readonly Finding[] | null,
  rule: R,
): Extract<Finding, { rule: R }> | undefined {
  return findings?.find((finding): finding is Extract<Finding, { rule: R }> => finding.rule === rule);
}
