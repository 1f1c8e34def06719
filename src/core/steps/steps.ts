import { listBlockingFindings } from '../check/check';
import type { Finding } from '../check/finding';
import { fixLabel } from '../check/fixes';
import { activeClip, type Job } from '../job/job';
import { isPosted } from '../job/records';
import { computeSignature } from '../job/signature';
import { findTarget } from '../outlets/outlets';
import type { Sheets } from '../outlets/rule-sheet';
import { canvasStep } from './canvas-step';
import { checkStep } from './check-step';
import { exportStep } from './export-step';
import { framingStep } from './framing-step';
import { lengthStep } from './length-step';
import { masterStep } from './master-step';
import { postStep } from './post-step';
import type { Standing, StepInput, StepKind } from './step';
import { wordsStep } from './words-step';

/** The steps of a job in their order, by the last part of their page's address: a file and a line each. */
const KINDS = {
  master: masterStep,
  canvas: canvasStep,
  cut: lengthStep,
  frame: framingStep,
  words: wordsStep,
  check: checkStep,
  export: exportStep,
  post: postStep,
} satisfies Record<string, StepKind>;

export type StepName = keyof typeof KINDS;
export const STEPS = Object.keys(KINDS) as StepName[];

/** Where a step of a job stands. */
export interface JobStep {
  name: StepName;
  title: string;
  /** Summary of what is settled and what is missing, in a line. */
  summary: string;
  standing: Standing;
}

/** Where each step of a job stands. */
export function listSteps(input: StepInput): JobStep[] {
  return STEPS.map((name) => ({ name, title: KINDS[name].title, ...KINDS[name].stand(input) }));
}

/** The one thing to do next: a step to go to, or a fix that one tap applies. */
export function findNextStep(
  job: Job,
  findings: StepInput['findings'],
  sheets: Sheets,
): { label: string; step: StepName; fix?: Finding['fix'] } {
  if (!findings) return { label: 'See the check', step: 'check' };
  const [stop] = listBlockingFindings(findings, activeClip(job.edit), 'export');
  if (stop?.fix) return { label: fixLabel(stop.fix), step: 'check', fix: stop.fix };
  if (stop) return { label: 'See what keeps the export back', step: 'check' };
  const signature = computeSignature(job.edit);
  const current = job.exports.find((record) => record.signature === signature && record.state === 'done');
  if (!current) return { label: 'Export the clip', step: 'export' };
  const { sheet } = findTarget(sheets, current);
  const posted = job.posts.some((post) => post.exportId === current.id && isPosted(post));
  return posted ? { label: 'See the posts', step: 'post' } : { label: `Post to ${sheet.name}`, step: 'post' };
}
