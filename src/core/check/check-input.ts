import type { Clip } from '../job/clip';
import { chosenAudience } from '../job/audience';
import { sourceIn, type Work } from '../job/job';
import { shotsOf } from '../cut/master-shots';
import type { Canvas } from '../layout/canvas';
import { NO_REPAIRS } from '../master/repairs';
import { type OutletPlacement, requiredTagsIn } from '../outlets/outlets';
import { allZones } from '../outlets/placement';
import type { Sheets } from '../outlets/rule-sheet';
import { coverageOf } from '../proof/coverage';
import { type BitRateChoice, defaultBitRate } from '../rate/bit-rate';
import { PLAIN_ENCODING } from '../rate/encoding';
import type { Framing } from '../framing/framing';
import { type Making, makingOf } from '../render/making';
import { planOf, type RenderPlan, withWords } from '../render/plan';
import { redrawnSegments, withSegments } from '../render/redrawn';
import { secondsOf } from '../time/frame-rate';
import { NO_TEXT } from '../words/clip-text';
import { postWords } from '../job/post-words';
import type { Look, PassOf } from './look';
import type { CheckInput } from './rule';

/** What a job is checked with, besides what it is. */
export interface Known {
  /** What its canvases are judged by. */
  sheets: Sheets;
  /** What is known of the masters' files; what is not known is found unknown, never passed. */
  passOf: PassOf;
  /** Video bits a second that a canvas of a clip comes to; null where that was not tried. */
  triedOf?(subject: Subject): number | null;
  /** Video bits a second that a trial of a canvas advises; null where there was none. */
  advisedOf?(subject: Subject): number | null;
}

/** What decides how a file is made. */
export type KnownOfMaking = Pick<Known, 'sheets' | 'advisedOf'>;

/** One canvas of one clip of a job, and what it is judged by. */
export interface Subject {
  work: Work;
  clip: Clip;
  canvas: Canvas;
  target: OutletPlacement;
}

/** Masters that a clip takes ranges from, in the order of its cut. */
const mastersOf = ({ cut }: Clip): string[] => [...new Set(cut.map((range) => range.master))];

/** The plan of a canvas of a clip. */
export function planFor({ work, clip, canvas, target }: Subject): RenderPlan {
  const sources = work.masters.map(({ id }) => sourceIn(work, id));
  const { leastChannels } = target.placement.audio;
  return planOf(canvas, { ...work.edit, ...wordsFor({ clip, target }), sources, leastChannels });
}

/** What the words on a canvas are worked out from. */
export const wordsFor = ({ clip: { cut, text }, target }: Pick<Subject, 'clip' | 'target'>) => ({
  cut,
  text,
  zones: allZones(target.placement),
});

/** The video bit rate that an export takes when the person set none, and why. */
export function bitRateFor(
  subject: Subject,
  plan: RenderPlan,
  { advisedOf }: Pick<Known, 'advisedOf'>,
): BitRateChoice {
  const { work, clip, canvas, target } = subject;
  const { mostBytes, video } = target.placement;
  const { sound } = canvas.encoding ?? PLAIN_ENCODING;
  const best = Math.max(...mastersOf(clip).map((id) => sourceIn(work, id).video.bits));
  const caps = { mostBytes, mostBits: video.mostBits, audioBits: sound.bits };
  const advised = advisedOf?.(subject) ?? null;
  return defaultBitRate(canvas, canvas.rate, best, caps, secondsOf(plan.frames, plan.rate), advised);
}

/** What an export of a canvas is asked to be. */
export function makingFor(subject: Subject, plan: RenderPlan, known: Pick<Known, 'advisedOf'>): Making {
  const { canvas, target } = subject;
  const choice = bitRateFor(subject, plan, known);
  return makingOf(plan, canvas.encoding ?? PLAIN_ENCODING, target.placement, choice);
}

/**
 * What the rules look at. @param before what they looked at before, the likest first: what is still the same stays the
 * same object, so that no rule looks at it again.
 */
export function inputOf(subject: Subject, known: Known, before: readonly CheckInput[] = []): CheckInput {
  const { work, clip, canvas, target } = subject;
  const { sheets, passOf, triedOf } = known;
  const ids = mastersOf(clip);
  const looks = ids.map((id, i) =>
    sameOf(
      before.flatMap((old) => old.looks[i] ?? []),
      lookAt(work, id, passOf),
      sameLook,
    ),
  );
  const plan = planAfter(subject, before);
  return {
    cut: clip.cut,
    text: clip.text ?? NO_TEXT,
    words: postWords(clip, target.sheet.outlet),
    audience: chosenAudience(clip, target.key),
    requiredTags: sameOf(
      before.map((old) => old.requiredTags),
      requiredTagsIn(sheets),
      alike,
    ),
    sources: sameOf(
      before.map((old) => old.sources),
      ids.map((id) => sourceIn(work, id)),
      alike,
    ),
    looks: sameOf(
      before.map((old) => old.looks),
      looks,
      alike,
    ),
    canvas,
    plan,
    making: sameOf(
      before.map((old) => old.making),
      makingFor(subject, plan, known),
      sameMaking,
    ),
    triedBits: triedOf?.(subject) ?? null,
    target: sameOf(
      before.map((old) => old.target),
      target,
      sameTarget,
    ),
    coverage: before.find((old) => old.plan === plan)?.coverage ?? coverageOf(plan),
  };
}

/** The first of some older values that is the same, or else the new one. */
const sameOf = <T>(before: readonly T[], now: T, same: (a: T, b: T) => boolean): T =>
  before.find((old) => same(old, now)) ?? now;

function lookAt(work: Work, id: string, passOf: PassOf): Look {
  const master = work.masters.find((master) => master.id === id);
  if (!master) throw new RangeError(`the job has no master ${id}`);
  const source = sourceIn(work, id);
  const { shots, repairs } = work.edit;
  const pass = passOf(master.fingerprint);
  return { master, repairs: repairs[id] ?? NO_REPAIRS, source, shots: shotsOf(shots, source), pass };
}

const alike = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((value, i) => value === b[i]);

function sameLook(before: Look, now: Look): boolean {
  const facts = ({ master, repairs, source, pass }: Look) => [master, repairs, source, pass];
  return alike(facts(before), facts(now)) && alike(before.shots, now.shots);
}

const sameMaking = (a: Making, b: Making): boolean => JSON.stringify(a) === JSON.stringify(b);

const sameTarget = (a: OutletPlacement, b: OutletPlacement): boolean =>
  a.key === b.key && a.placement === b.placement && a.sheet === b.sheet;

/** What a plan was made of. */
interface Parts {
  /** All but the framings and the words. */
  fixed: readonly unknown[];
  framings: readonly Framing[];
  words: readonly unknown[];
}
const parts = new WeakMap<RenderPlan['segments'], Parts>();

/** What lies outside the clip does not count. */
function partsOf({ work, clip, canvas, target }: Subject): Parts {
  const { width, height, rate, layout, detached } = canvas;
  const shots = work.edit.shots.filter(({ master, in: first, out }) =>
    clip.cut.some((range) => range.master === master && range.in < out && range.out > first),
  );
  const ids = new Set([...shots.map(({ id }) => id), ...clip.cut.map(({ master }) => `${master}-1`)]);
  const sources = work.masters.map(({ id }) => sourceIn(work, id));
  return {
    fixed: [
      ...[clip.cut, width, height, rate.num, rate.den, layout, clip.text?.card],
      ...[canvas.encoding?.sharpening, ...sources, ...shots],
    ],
    framings: [...work.edit.framings, ...detached].filter(({ shot }) => ids.has(shot)),
    words: [clip.text, canvas.text, target.placement.zones],
  };
}

/** The plan of a subject, made of an older one's segments as far as these are still the same. */
function planAfter(subject: Subject, before: readonly CheckInput[]): RenderPlan {
  const { canvas, clip, work } = subject;
  const drawn = before.find(({ plan }) => {
    const of = subjects.get(plan.segments);
    return of?.work === work && of.clip === clip && of.canvas === canvas;
  })?.plan;
  const plan = drawn ?? planWith(subject, before);
  subjects.set(plan.segments, subject);
  const { leastChannels } = subject.target.placement.audio;
  if (plan.leastChannels === leastChannels) return plan;
  return (
    before.find((old) => old.plan.segments === plan.segments && old.plan.leastChannels === leastChannels)
      ?.plan ?? { ...plan, leastChannels }
  );
}

/** What plans were last made for. */
const subjects = new WeakMap<RenderPlan['segments'], Subject>();

function planWith(subject: Subject, before: readonly CheckInput[]): RenderPlan {
  const now = partsOf(subject);
  const old = before.find(({ plan }) => alike(parts.get(plan.segments)?.fixed ?? [], now.fixed));
  const plan = old ? redrawn(old.plan, subject, now) : planFor(subject);
  parts.set(plan.segments, now);
  return plan;
}

function redrawn(plan: RenderPlan, subject: Subject, now: Parts): RenderPlan {
  const { work, canvas } = subject;
  const before = parts.get(plan.segments);
  const known = new Set(before?.framings);
  const still = new Set(now.framings);
  const changed = [
    ...now.framings.filter((framing) => !known.has(framing)),
    ...[...known].filter((framing) => !still.has(framing)),
  ];
  const worded = alike(before?.words ?? [], now.words)
    ? plan
    : // Its list of segments is another one, since it tells what the plan was made of.
      { ...withWords(plan, canvas, wordsFor(subject)), segments: [...plan.segments] };
  if (changed.length === 0) return worded;
  return withSegments(worded, redrawnSegments(worded, canvas, { ...work.edit, changed }));
}
