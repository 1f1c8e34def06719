import { activeCanvas, type CheckOverride } from '../job/clip';
import { activeClip, findSource, type Work } from '../job/job';
import { findTarget } from '../outlets/outlets';
import type { Sheets } from '../outlets/rule-sheet';
import type { BitRateChoice } from '../rate/bit-rate';
import type { EncodeSettings } from '../render/encode-settings';
import type { RenderPlan } from '../render/plan';
import type { MasterLengths } from '../cut/cut';
import {
  chooseBitrate,
  createCheckInput,
  type CheckContext,
  type EncodeContext,
  chooseEncodeSettings,
} from './check-input';
import { planSubject, type CheckSubject } from './subject-plan';
import type { Finding } from './finding';
import { collectFindings } from './findings';
import type { AnalysisLookup } from './master-analysis';
import type { BlockedAction } from './rule';

/** Rates and lengths of a job's masters, as repaired. */
export function masterLengths(work: Work): MasterLengths {
  return (id) => findSource(work, id);
}

/** The plan of the canvas that a job is working on. */
export const planOfJob = (work: Work, sheets: Sheets): RenderPlan =>
  planSubject(toCheckSubject(work, sheets));

/** Chooses the encode settings of the canvas that a job is working on. */
export const toJobEncodeSettings = (work: Work, known: EncodeContext): EncodeSettings =>
  chooseEncodeSettings(toCheckSubject(work, known.sheets), planOfJob(work, known.sheets), known);

function toCheckSubject(work: Work, sheets: Sheets): CheckSubject {
  const clip = activeClip(work.edit);
  const canvas = activeCanvas(clip);
  return { work, clip, canvas, target: findTarget(sheets, canvas) };
}

/** Video bits a second that a trial advises for the canvas that a job is working on; null where there was none. */
export const findAdvisedBitrate = (work: Work, { sheets, advisedOf }: EncodeContext): number | null =>
  advisedOf?.(toCheckSubject(work, sheets)) ?? null;

/** The video bit rate that an export takes when the person set none, and why. */
export const computeBitrate = (work: Work, known: EncodeContext): BitRateChoice =>
  chooseBitrate(toCheckSubject(work, known.sheets), planOfJob(work, known.sheets), known);

/** Findings of every rule on the canvas of the clip that a job is working on. */
export function checkJob(work: Work, known: CheckContext): Finding[] {
  return collectFindings(createCheckInput(toCheckSubject(work, known.sheets), known).input);
}

/** Tells whether every master of the clip being worked on has been analysed. */
export function isAnalyzed({ edit, masters }: Work, passOf: AnalysisLookup): boolean {
  const used = new Set(activeClip(edit).cut.map((range) => range.master));
  return masters.every(({ id, fingerprint }) => !used.has(id) || passOf(fingerprint) !== null);
}

/** Stops that keep an export of a canvas or a post of it back: a post waits for what holds the export too. */
export function listBlockingFindings(
  findings: readonly Finding[],
  { overrides, canvas }: { overrides: readonly CheckOverride[]; canvas: string },
  what: BlockedAction,
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
