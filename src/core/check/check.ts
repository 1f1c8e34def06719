import { activeCanvas, type Job } from '../job/job';
import { coverageOf } from '../layout/coverage';
import { placementOf } from '../outlets/outlets';
import { defaultBitRate, type BitRateChoice } from '../rate/bit-rate';
import { planOf, type RenderPlan } from '../render/plan';
import { secondsOf } from '../time/frame-rate';
import { cutLength } from '../cut/cut';
import type { CheckInput, Finding, Holds, Rule } from './finding';
import { audioRule } from './rules/audio';
import { coverageRule } from './rules/coverage';
import { enlargementRule } from './rules/enlargement';
import { fileSizeRule } from './rules/file-size';
import { lengthRule } from './rules/length';
import { rateRule } from './rules/rate';
import { sizeRule } from './rules/size';
import { tagRule } from './rules/tag';
import { titleRule } from './rules/title';

/** Every rule, in the order in which its findings are shown. */
export const RULES: readonly Rule[] = [
  lengthRule,
  sizeRule,
  coverageRule,
  rateRule,
  enlargementRule,
  fileSizeRule,
  audioRule,
  titleRule,
  tagRule,
];

/** The plan of the canvas that a job is working on. */
export function planOfJob({ edit, master }: Pick<Job, 'edit' | 'master'>): RenderPlan {
  return planOf(activeCanvas(edit), { ...edit, live: master.picture });
}

/** The video bit rate that an export takes when the person set none, and why. */
export function workedOutBitRate({ edit, master }: Pick<Job, 'edit' | 'master'>): BitRateChoice {
  const canvas = activeCanvas(edit);
  const { maxBytes } = placementOf(canvas.placement).placement;
  const seconds = secondsOf(cutLength(edit.cut), canvas.rate);
  return defaultBitRate(canvas, canvas.rate, master.video.bits, maxBytes, seconds);
}

/** Findings of every rule on the canvas that a job is working on. */
export function checkJob(job: Pick<Job, 'edit' | 'master'>): Finding[] {
  const { edit, master } = job;
  const canvas = activeCanvas(edit);
  const plan = planOfJob(job);
  const videoBits = edit.videoBits ?? workedOutBitRate(job).bits;
  const input: CheckInput = {
    edit,
    master,
    canvas,
    plan,
    videoBits,
    target: placementOf(canvas.placement),
    coverage: coverageOf(plan),
  };
  return RULES.map((rule) => rule.check(input));
}

/** Stops that keep an export or a post back: a post waits for what holds the export too. */
export function heldBack(findings: readonly Finding[], overrides: readonly string[], what: Holds): Finding[] {
  return findings.filter(
    (finding) =>
      finding.severity === 'stop' &&
      !overrides.includes(finding.rule) &&
      (what === 'post' || finding.holds === 'export'),
  );
}
