import type { Clip } from '../job/clip';
import { chosenAudience } from '../job/audience';
import { findSource, type Work } from '../job/job';
import { listShots } from '../cut/master-shots';
import { NO_REPAIRS } from '../master/repairs';
import { type OutletPlacement, listRequiredTags } from '../outlets/outlets';
import type { Sheets } from '../outlets/rule-sheet';
import { computeCoverage } from '../proof/coverage';
import { type BitRateChoice, defaultBitRate } from '../rate/bit-rate';
import { PLAIN_ENCODING } from '../rate/encoding';
import { type EncodeSettings, toEncodeSettings } from '../render/encode-settings';
import type { RenderPlan } from '../render/plan';
import { toSeconds } from '../time/frame-rate';
import { NO_TEXT } from '../words/clip-text';
import { postWords } from '../job/post-words';
import type { MasterAnalysis, AnalysisLookup } from './master-analysis';
import { hasSameItems, updatePlan, type SubjectPlan, type CheckSubject } from './subject-plan';
import type { CheckInput } from './rule';

/** Everything that a check needs besides the job. */
export interface CheckContext {
  /** Rule sheets that its canvases are judged by. */
  sheets: Sheets;
  /** Analyses of the masters' files; what is not known is reported as unknown, never as passed. */
  passOf: AnalysisLookup;
  /** Video bits a second that a canvas of a clip comes to; null where that was not tried. */
  triedOf?(subject: CheckSubject): number | null;
  /** Video bits a second that a trial of a canvas advises; null where there was none. */
  advisedOf?(subject: CheckSubject): number | null;
}

/** Everything that encode settings depend on besides the job. */
export type EncodeContext = Pick<CheckContext, 'sheets' | 'advisedOf'>;

/** The input of the rules, and the plan in it with its sources, for the next look. */
export interface PlannedInput {
  input: CheckInput;
  planned: SubjectPlan;
}

/** Masters that a clip takes ranges from, in the order of its cut. */
const listMasters = ({ cut }: Clip): string[] => [...new Set(cut.map((range) => range.master))];

/** The video bit rate that an export takes when the person set none, and why. */
export function chooseBitrate(
  subject: CheckSubject,
  plan: RenderPlan,
  { advisedOf }: Pick<CheckContext, 'advisedOf'>,
): BitRateChoice {
  const { work, clip, canvas, target } = subject;
  const { mostBytes, video } = target.placement;
  const { sound } = canvas.encoding ?? PLAIN_ENCODING;
  const best = Math.max(...listMasters(clip).map((id) => findSource(work, id).video.bits));
  const caps = { mostBytes, mostBits: video.mostBits, audioBits: sound.bits };
  const advised = advisedOf?.(subject) ?? null;
  return defaultBitRate(canvas, canvas.rate, best, caps, toSeconds(plan.frames, plan.rate), advised);
}

/** Chooses the encode settings of a canvas. */
export function chooseEncodeSettings(
  subject: CheckSubject,
  plan: RenderPlan,
  known: Pick<CheckContext, 'advisedOf'>,
): EncodeSettings {
  const { canvas, target } = subject;
  const choice = chooseBitrate(subject, plan, known);
  return toEncodeSettings(plan, canvas.encoding ?? PLAIN_ENCODING, target.placement, choice);
}

/**
 * Creates the input of the rules. @param looked what they looked at before, the likest first: what is still the same stays the
 * same object, so that no rule looks at it again.
 */
export function createCheckInput(
  subject: CheckSubject,
  known: CheckContext,
  looked: readonly PlannedInput[] = [],
): PlannedInput {
  const { work, clip, canvas, target } = subject;
  const before = looked.map(({ input }) => input);
  const { sheets, passOf, triedOf } = known;
  const ids = listMasters(clip);
  const looks = ids.map((id, i) =>
    reuseEqual(
      before.flatMap((old) => old.looks[i] ?? []),
      lookAt(work, id, passOf),
      sameLook,
    ),
  );
  const planned = updatePlan(
    subject,
    looked.map((old) => old.planned),
  );
  const { plan } = planned;
  const input = {
    cut: clip.cut,
    text: clip.text ?? NO_TEXT,
    words: postWords(clip, target.sheet.outlet),
    audience: chosenAudience(clip, target.key),
    requiredTags: reuseEqual(
      before.map((old) => old.requiredTags),
      listRequiredTags(sheets),
      hasSameItems,
    ),
    sources: reuseEqual(
      before.map((old) => old.sources),
      ids.map((id) => findSource(work, id)),
      hasSameItems,
    ),
    looks: reuseEqual(
      before.map((old) => old.looks),
      looks,
      hasSameItems,
    ),
    canvas,
    plan,
    making: reuseEqual(
      before.map((old) => old.making),
      chooseEncodeSettings(subject, plan, known),
      sameMaking,
    ),
    triedBits: triedOf?.(subject) ?? null,
    target: reuseEqual(
      before.map((old) => old.target),
      target,
      sameTarget,
    ),
    coverage: before.find((old) => old.plan === plan)?.coverage ?? computeCoverage(plan),
  };
  return { input, planned };
}

/** The first of some older values that is the same, or else the new one. */
const reuseEqual = <T>(before: readonly T[], now: T, same: (a: T, b: T) => boolean): T =>
  before.find((old) => same(old, now)) ?? now;

function lookAt(work: Work, id: string, passOf: AnalysisLookup): MasterAnalysis {
  const master = work.masters.find((master) => master.id === id);
  if (!master) throw new RangeError(`the job has no master ${id}`);
  const source = findSource(work, id);
  const { shots, repairs } = work.edit;
  const pass = passOf(master.fingerprint);
  return { master, repairs: repairs[id] ?? NO_REPAIRS, source, shots: listShots(shots, source), pass };
}

function sameLook(before: MasterAnalysis, now: MasterAnalysis): boolean {
  const facts = ({ master, repairs, source, pass }: MasterAnalysis) => [master, repairs, source, pass];
  return hasSameItems(facts(before), facts(now)) && hasSameItems(before.shots, now.shots);
}

const sameMaking = (a: EncodeSettings, b: EncodeSettings): boolean => JSON.stringify(a) === JSON.stringify(b);

const sameTarget = (a: OutletPlacement, b: OutletPlacement): boolean =>
  a.key === b.key && a.placement === b.placement && a.sheet === b.sheet;
