import { activeCanvas, type Override } from '../job/clip';
import { activeClip, sourceIn, sourcesIn, type Work } from '../job/job';
import { coverageOf } from '../proof/coverage';
import { OWN_KEY, targetOf } from '../outlets/outlets';
import type { Sheets } from '../outlets/rule-sheet';
import { defaultBitRate, type BitRateChoice } from '../rate/bit-rate';
import { shotsOf } from '../cut/master-shots';
import { NO_REPAIRS } from '../master/repairs';
import { planOf, type RenderPlan } from '../render/plan';
import { secondsOf } from '../time/frame-rate';
import type { MasterLengths } from '../cut/cut';
import type { Finding } from './finding';
import type { Look, PassOf } from './look';
import type { CheckInput, Holds, PostInput, Rule } from './rule';
import { EXPORT_RULES, POST_RULES } from './rules';

/** Rates and lengths of a job's masters, as repaired. */
export function masterLengths(work: Work): MasterLengths {
  return (id) => sourceIn(work, id);
}

/** The plan of the canvas that a job is working on. */
export function planOfJob(work: Work, sheets: Sheets): RenderPlan {
  const { edit } = work;
  const clip = activeClip(edit);
  const canvas = activeCanvas(clip);
  const { leastChannels } = targetOf(sheets, canvas).placement.audio;
  return planOf(canvas, { ...edit, cut: clip.cut, sources: sourcesIn(work), leastChannels });
}

/** The video bit rate that an export takes when the person set none, and why. */
export function workedOutBitRate(work: Work, sheets: Sheets): BitRateChoice {
  return bitRateFor(work, sheets, planOfJob(work, sheets));
}

function bitRateFor(work: Work, sheets: Sheets, plan: RenderPlan): BitRateChoice {
  const clip = activeClip(work.edit);
  const canvas = activeCanvas(clip);
  const { mostBytes, video } = targetOf(sheets, canvas).placement;
  const caps = { mostBytes, mostBits: video.mostBits };
  const best = Math.max(...clip.cut.map((range) => sourceIn(work, range.master).video.bits));
  return defaultBitRate(canvas, canvas.rate, best, caps, secondsOf(plan.frames, plan.rate));
}

/** What a job is checked with, besides what it is. */
export interface Known {
  /** What its canvases are judged by. */
  sheets: Sheets;
  /** What is known of the masters' files; what is not known is found unknown, never passed. */
  passOf: PassOf;
  /** Video bits a second that the clip comes to, where that was tried. */
  triedBits?: number | null;
}

/**
 * Findings of every rule on the canvas of the clip that a job is working on.
 */
export function checkJob(work: Work, { sheets, passOf, triedBits = null }: Known): Finding[] {
  const clip = activeClip(work.edit);
  const canvas = activeCanvas(clip);
  const plan = planOfJob(work, sheets);
  const ids = [...new Set(clip.cut.map((range) => range.master))];
  const input: CheckInput = {
    clip,
    words: clip.words,
    audience: clip.audience,
    sources: ids.map((id) => sourceIn(work, id)),
    masters: masterLengths(work),
    looks: ids.map((id) => lookAt(work, id, passOf)),
    canvas,
    plan,
    videoBits: clip.videoBits ?? bitRateFor(work, sheets, plan).bits,
    triedBits,
    target: targetOf(sheets, canvas),
    coverage: coverageOf(plan),
  };
  return [...findingsOf(EXPORT_RULES, input), ...checkPost(input)];
}

function lookAt(work: Work, id: string, passOf: PassOf): Look {
  const master = work.masters.find((master) => master.id === id);
  if (!master) throw new RangeError(`the job has no master ${id}`);
  const source = sourceIn(work, id);
  const { shots, repairs } = work.edit;
  return {
    master,
    repairs: repairs[id] ?? NO_REPAIRS,
    source,
    shots: shotsOf(shots, source),
    pass: passOf(master.fingerprint),
  };
}

/** Whether everything that only a look can tell is known of the masters of the clip being worked on. */
export function isLookedAt({ edit, masters }: Work, passOf: PassOf): boolean {
  const used = new Set(activeClip(edit).cut.map((range) => range.master));
  return masters.every(({ id, fingerprint }) => !used.has(id) || passOf(fingerprint) !== null);
}

/** Findings of the rules on what goes out with a post. */
export function checkPost(input: PostInput): Finding[] {
  return findingsOf(POST_RULES, input);
}

function findingsOf<Input extends PostInput>(
  rules: Record<string, Pick<Rule<Input, never>, 'holds' | 'outlet'> & { check(input: Input): object }>,
  input: Input,
): Finding[] {
  const own = input.target.key === OWN_KEY;
  return Object.entries(rules)
    .filter(([, rule]) => !(own && rule.outlet))
    .map(([rule, { holds, check }]) => ({ rule, holds, ...check(input) }) as Finding);
}

/** Stops that keep an export of a canvas or a post of it back: a post waits for what holds the export too. */
export function heldBack(
  findings: readonly Finding[],
  { overrides, canvas }: { overrides: readonly Override[]; canvas: string },
  what: Holds,
): Finding[] {
  const passed = new Set(
    overrides.filter((override) => override.canvas === canvas).map((override) => override.rule),
  );
  return findings.filter(
    (finding) =>
      finding.severity === 'stop' &&
      !passed.has(finding.rule) &&
      (what === 'post' || finding.holds === 'export'),
  );
}
