import { activeCanvas } from '../job/clip';
import { activeClip, sourceIn, sourcesIn, type Work } from '../job/job';
import { coverageOf } from '../proof/coverage';
import { OWN_KEY, targetOf } from '../outlets/outlets';
import { defaultBitRate, type BitRateChoice } from '../rate/bit-rate';
import { planOf, type RenderPlan } from '../render/plan';
import { secondsOf } from '../time/frame-rate';
import type { MasterLengths } from '../cut/cut';
import type { CheckInput, Finding, Holds, Rule } from './finding';
import { audioRule } from './rules/audio';
import { coverageRule } from './rules/coverage';
import { enlargementRule } from './rules/enlargement';
import { fileSizeRule } from './rules/file-size';
import { lengthRule } from './rules/length';
import { panesRule } from './rules/panes';
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
  panesRule,
  fileSizeRule,
  audioRule,
  titleRule,
  tagRule,
];

/** Rates and lengths of a job's masters, as repaired. */
export function masterLengths(work: Work): MasterLengths {
  return (id) => sourceIn(work, id);
}

/** The plan of the canvas that a job is working on. */
export function planOfJob(work: Work): RenderPlan {
  const { edit } = work;
  const clip = activeClip(edit);
  return planOf(activeCanvas(clip), { ...edit, cut: clip.cut, sources: sourcesIn(work) });
}

/** The video bit rate that an export takes when the person set none, and why. */
export function workedOutBitRate(work: Work): BitRateChoice {
  return bitRateFor(work, planOfJob(work));
}

function bitRateFor(work: Work, plan: RenderPlan): BitRateChoice {
  const clip = activeClip(work.edit);
  const canvas = activeCanvas(clip);
  const { maxBytes } = targetOf(canvas).placement;
  const best = Math.max(...clip.cut.map((range) => sourceIn(work, range.master).video.bits));
  return defaultBitRate(canvas, canvas.rate, best, maxBytes, secondsOf(plan.frames, plan.rate));
}

/** Findings of every rule on the canvas of the clip that a job is working on. */
export function checkJob(work: Work): Finding[] {
  const clip = activeClip(work.edit);
  const canvas = activeCanvas(clip);
  const plan = planOfJob(work);
  const ids = [...new Set(clip.cut.map((range) => range.master))];
  const input: CheckInput = {
    clip,
    sources: ids.map((id) => sourceIn(work, id)),
    masters: masterLengths(work),
    canvas,
    plan,
    videoBits: clip.videoBits ?? bitRateFor(work, plan).bits,
    target: targetOf(canvas),
    coverage: coverageOf(plan),
  };
  const own = input.target.key === OWN_KEY;
  return RULES.filter((rule) => !(own && rule.outlet)).map((rule) => rule.check(input));
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
