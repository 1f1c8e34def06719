import { create } from 'zustand';
import { type BoardCell, findWorstSeverity } from '@core/check/check-board';
import type { FixStep } from '@core/check/fix-all';
import type { Severity } from '@core/check/rule';
import { type ChangedVerdict, listChangedVerdicts } from '@core/check/verdicts';
import type { JudgedJob } from '@core/interchange/check-report';
import type { Job, Work } from '@core/job/job';
import type { RuleSheet, Sheets } from '@core/outlets/rule-sheet';
import type { AnalysisResult } from '@core/pass/pass';
import { toTrouble, type Trouble, TroubleError } from '@core/trouble/trouble';
import type { CheckOrder, JudgedEvent } from '@media/check/check-protocol';
import { Checker } from '@media/check/checker';
import { allTrials, listTriedSizes } from '../export';
import { sheetsNow, useJobs } from '../job';
import { getPass, storedPass } from '../master';
import { loadJob } from '../store';

interface ChecksState {
  /** By job: every clip on every canvas for every placement, as it was last judged. */
  boards: Record<string, BoardCell[]>;
  /** Jobs that were judged of those that are to be, while that goes on. */
  progress: { done: number; total: number } | null;
  trouble: Trouble | null;
}

export const useChecks = create<ChecksState>(() => ({ boards: {}, progress: null, trouble: null }));

/** Ends a failed check. What is known stays; the next check begins with a worker of its own. */
function failChecks(detail: string): void {
  for (const checker of [working, listing]) checker?.close();
  working = null;
  listing = null;
  useChecks.setState({ progress: null, trouble: { code: 'worker-ended', values: { detail } } });
}

function take({ job, cells, done, total }: JudgedEvent): void {
  useChecks.setState(({ boards }) => ({
    boards: { ...boards, [job]: cells },
    progress: done < total ? { done, total } : null,
    trouble: null,
  }));
}

let working: Checker | null = null;
let listing: Checker | null = null;

/** Judges the job that is worked on anew, in a worker; what it comes to is in the store a moment later. */
export function checkWork(job: Job): void {
  working ??= new Checker(take, failChecks);
  working.check(toOrder([toStored(job, listPasses(job))], sheetsNow()));
}

/** A stored job, with what is known of its masters. */
interface StoredCheck {
  id: string;
  title: string;
  work: Work;
  passes: AnalysisResult[];
}
/** Jobs that were read, by their revision. */
const read = new Map<string, { revision: number; stored: StoredCheck }>();

/** Every job of this browser; those that do not open are left out. */
async function allJobs(): Promise<StoredCheck[]> {
  const { listed, files } = useJobs.getState();
  const found = await Promise.all(
    Object.values(listed).map(async ({ head }): Promise<StoredCheck | null> => {
      const known = read.get(head.id);
      if (known?.revision === head.revision) return known.stored;
      const job = files[head.id]?.job ?? (await loadedJob(head.id));
      if (!job) return null;
      const passes = await Promise.all(
        job.masters.map(async (master) => getPass(master.fingerprint) ?? (await storedPass(master))),
      );
      const seen = passes.flatMap((pass) => pass ?? []);
      const stored = toStored(job, seen);
      // A look that is not done yet is looked up again.
      if (stored.passes.length === job.masters.length) read.set(job.id, { revision: head.revision, stored });
      return stored;
    }),
  );
  return found.flatMap((stored) => stored ?? []);
}

async function loadedJob(id: string): Promise<Job | null> {
  const stored = await loadJob(id);
  return stored?.ok ? stored.file.job : null;
}

/** A job, or every job of this browser, judged as it is at this moment. @throws TroubleError when the worker ends. */
export async function judgeCurrent(job: Job | null): Promise<JudgedJob[]> {
  const jobs = job ? [toStored(job, listPasses(job))] : await allJobs();
  const answers = await judgeJobs(jobs, { sheets: sheetsNow() });
  return jobs.flatMap(({ id, title, work }) => {
    const answer = answers.get(id);
    return answer ? [{ title, work, cells: answer.cells }] : [];
  });
}

/** The fixes of a job that take nothing away, in the order in which they are to be made. @throws TroubleError when the worker ends, or `cancelled`. */
export async function safeFixesNow(job: Job, signal: AbortSignal): Promise<FixStep[]> {
  const stored = toStored(job, listPasses(job));
  const answers = await judgeJobs([stored], { sheets: sheetsNow(), fixes: true, signal });
  return answers.get(job.id)?.fixes ?? [];
}

const listPasses = ({ masters }: Job): AnalysisResult[] =>
  masters.flatMap(({ fingerprint }) => getPass(fingerprint) ?? []);

const toStored = ({ id, title, masters, edit }: Job, passes: AnalysisResult[]): StoredCheck => ({
  id,
  title,
  work: { masters, edit },
  passes,
});

const toOrder = (jobs: readonly StoredCheck[], sheets: Sheets): Omit<CheckOrder, 'ask'> => ({
  jobs: jobs.map(({ id, work }) => ({ id, work })),
  sheets: [...sheets],
  passes: jobs.flatMap(({ passes }) => passes),
  sizes: listTriedSizes(),
  trials: allTrials(),
});

/** Judges every job of this browser, in a worker. */
export async function checkAllJobs(): Promise<void> {
  const jobs = await allJobs();
  if (jobs.length === 0) return;
  listing ??= new Checker(take, failChecks);
  listing.check(toOrder(jobs, sheetsNow()));
}

/** Effect of a change of rule sheets on a job. */
export interface SheetEffect {
  id: string;
  title: string;
  verdicts: ChangedVerdict[];
}

/**
 * Judges the clips of every job by other rule sheets: lists those that get worse, and those that get better.
 * @param onProgress the share that is done, 0…1.
 * @throws TroubleError when the worker ends, or `cancelled`.
 */
export async function sheetEffects(
  before: Sheets,
  after: readonly RuleSheet[],
  { onProgress, signal }: { onProgress(share: number): void; signal: AbortSignal },
): Promise<SheetEffect[]> {
  const jobs = await allJobs();
  if (jobs.length === 0) return [];
  const half = (from: number) => (share: number) => onProgress(from + share / 2);
  const old = await judgeJobs(jobs, { sheets: before, onProgress: half(0), signal });
  const fresh = await judgeJobs(jobs, { sheets: after, onProgress: half(0.5), signal });
  return jobs.flatMap(({ id, title }) => {
    const verdicts = listChangedVerdicts(old.get(id)?.cells ?? [], fresh.get(id)?.cells ?? []);
    return verdicts.length > 0 ? [{ id, title, verdicts }] : [];
  });
}

/** How jobs are judged by a worker of their own. */
interface JudgeRequest {
  sheets: Sheets;
  /** True when their safe fixes are wanted too. */
  fixes?: boolean;
  onProgress?(share: number): void;
  signal?: AbortSignal;
}

function judgeJobs(
  jobs: readonly StoredCheck[],
  { sheets, fixes = false, onProgress, signal }: JudgeRequest,
): Promise<Map<string, JudgedEvent>> {
  const answers = new Map<string, JudgedEvent>();
  if (jobs.length === 0) return Promise.resolve(answers);
  return new Promise((resolve, reject) => {
    const end = (settle: () => void) => {
      checker.close();
      signal?.removeEventListener('abort', cancel);
      settle();
    };
    const checker = new Checker(
      (answer) => {
        const { job, done, total } = answer;
        answers.set(job, answer);
        onProgress?.(done / total);
        if (done === total) end(() => resolve(answers));
      },
      (detail) => end(() => reject(new TroubleError('worker-ended', { detail }))),
    );
    const cancel = () => end(() => reject(new TroubleError('cancelled')));
    if (signal?.aborted) return cancel();
    signal?.addEventListener('abort', cancel);
    checker.check({ ...toOrder(jobs, sheets), fixes });
  });
}

/** The trouble of a failed judging, for people. */
export const checkTrouble = (error: unknown): Trouble =>
  toTrouble(error, 'worker-ended', { detail: String(error) });

/** The worst that was found of a job; null before it was judged. */
export const findWorstOfJob = (boards: Record<string, BoardCell[]>, id: string): Severity | null => {
  const cells = boards[id];
  if (!cells) return null;
  return findWorstSeverity({
    findings: cells.flatMap(({ findings, overrides }) =>
      findings.filter(({ rule }) => !overrides.some((override) => override.rule === rule)),
    ),
    overrides: [],
  });
};
