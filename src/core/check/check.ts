import { activeCanvas, type Override } from '../job/clip';
import { activeClip, sourceIn, type Work } from '../job/job';
import { targetOf } from '../outlets/outlets';
import type { Sheets } from '../outlets/rule-sheet';
import type { BitRateChoice } from '../rate/bit-rate';
import type { RenderPlan } from '../render/plan';
import type { MasterLengths } from '../cut/cut';
import { bitRateFor, inputOf, type Known, planFor } from './check-input';
import type { Finding } from './finding';
import { findingsOf } from './findings';
import type { PassOf } from './look';
import type { Holds } from './rule';

/** Rates and lengths of a job's masters, as repaired. */
export function masterLengths(work: Work): MasterLengths {
  return (id) => sourceIn(work, id);
}

/** The plan of the canvas that a job is working on. */
export function planOfJob(work: Work, sheets: Sheets): RenderPlan {
  const clip = activeClip(work.edit);
  const canvas = activeCanvas(clip);
  return planFor({ work, clip, canvas, target: targetOf(sheets, canvas) });
}

/** The video bit rate that an export takes when the person set none, and why. */
export function workedOutBitRate(work: Work, sheets: Sheets): BitRateChoice {
  const clip = activeClip(work.edit);
  const canvas = activeCanvas(clip);
  const target = targetOf(sheets, canvas);
  return bitRateFor({ work, clip, canvas, target }, planOfJob(work, sheets));
}

/** Findings of every rule on the canvas of the clip that a job is working on. */
export function checkJob(work: Work, known: Known): Finding[] {
  const clip = activeClip(work.edit);
  const canvas = activeCanvas(clip);
  const target = targetOf(known.sheets, canvas);
  return findingsOf(inputOf({ work, clip, canvas, target }, known));
}

/** Whether everything that only a look can tell is known of the masters of the clip being worked on. */
export function isLookedAt({ edit, masters }: Work, passOf: PassOf): boolean {
  const used = new Set(activeClip(edit).cut.map((range) => range.master));
  return masters.every(({ id, fingerprint }) => !used.has(id) || passOf(fingerprint) !== null);
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
