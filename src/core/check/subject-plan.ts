import type { Framing } from '../framing/framing';
import type { Clip } from '../job/clip';
import { findSource, type Work } from '../job/job';
import type { Canvas } from '../layout/canvas';
import type { OutletPlacement } from '../outlets/outlets';
import { allZones } from '../outlets/placement';
import { createRenderPlan, type RenderPlan, withWords } from '../render/plan';
import { redrawSegments, withSegments } from '../render/redraw-segments';

/** A canvas of a clip of a job, and the placement that it is judged by. */
export interface CheckSubject {
  work: Work;
  clip: Clip;
  canvas: Canvas;
  target: OutletPlacement;
}

/** Plans a canvas of a clip from nothing. */
export function planSubject({ work, clip, canvas, target }: CheckSubject): RenderPlan {
  const sources = work.masters.map(({ id }) => findSource(work, id));
  const { leastChannels } = target.placement.audio;
  return createRenderPlan(canvas, {
    ...work.edit,
    ...collectWordSources({ clip, target }),
    sources,
    leastChannels,
  });
}

/** Collects what a plan lays words from: the cut, its text, and the overlay zones that captions keep clear of. */
export const collectWordSources = ({
  clip: { cut, text },
  target,
}: Pick<CheckSubject, 'clip' | 'target'>) => ({
  cut,
  text,
  zones: allZones(target.placement),
});

/** A plan, its subject, and the parts of the subject that it was drawn from. */
export interface SubjectPlan {
  plan: RenderPlan;
  subject: CheckSubject;
  parts: PlanSources;
}

/** The parts of a subject that a plan is drawn from: the same objects give the same plan. */
interface PlanSources {
  /** The cut, the size, the rate, the layout, the sources and the shots. */
  fixed: readonly unknown[];
  framings: readonly Framing[];
  words: readonly unknown[];
}

/** Tells whether two lists have the same items, by identity, in the same order. */
export const hasSameItems = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((value, i) => value === b[i]);

/** Collects the parts of a subject that its plan is drawn from; what lies outside the clip does not count. */
function collectPlanSources({ work, clip, canvas, target }: CheckSubject): PlanSources {
  const { width, height, rate, layout, detached } = canvas;
  const shots = work.edit.shots.filter(({ master, in: first, out }) =>
    clip.cut.some((range) => range.master === master && range.in < out && range.out > first),
  );
  const ids = new Set([...shots.map(({ id }) => id), ...clip.cut.map(({ master }) => `${master}-1`)]);
  const sources = work.masters.map(({ id }) => findSource(work, id));
  return {
    fixed: [
      ...[clip.cut, width, height, rate.num, rate.den, layout, clip.text?.card],
      ...[canvas.encoding?.sharpening, ...sources, ...shots],
    ],
    framings: [...work.edit.framings, ...detached].filter(({ shot }) => ids.has(shot)),
    words: [clip.text, canvas.text, target.placement.zones],
  };
}

/**
 * Plans a subject out of older plans: segments that are still the same stay the same objects.
 * @param before plans of earlier looks, the likest first.
 */
export function updatePlan(subject: CheckSubject, before: readonly SubjectPlan[]): SubjectPlan {
  const { work, clip, canvas, target } = subject;
  const same = before.find(
    ({ subject: old }) => old.work === work && old.clip === clip && old.canvas === canvas,
  );
  const { plan, parts } = same ?? reusePlan(subject, before);
  const { leastChannels } = target.placement.audio;
  const fits = (old: RenderPlan) =>
    old.leastChannels === leastChannels && old.segments === plan.segments && old.overlays === plan.overlays;
  const fitting = [plan, ...before.map((old) => old.plan)].find(fits) ?? { ...plan, leastChannels };
  return { plan: fitting, subject, parts };
}

function reusePlan(
  subject: CheckSubject,
  before: readonly SubjectPlan[],
): Pick<SubjectPlan, 'plan' | 'parts'> {
  const parts = collectPlanSources(subject);
  const old = before.find((planned) => hasSameItems(planned.parts.fixed, parts.fixed));
  return { plan: old ? redrawPlan(old, subject, parts) : planSubject(subject), parts };
}

function redrawPlan(
  { plan, parts: before }: SubjectPlan,
  subject: CheckSubject,
  now: PlanSources,
): RenderPlan {
  const { work, canvas } = subject;
  const known = new Set(before.framings);
  const still = new Set(now.framings);
  const changed = [
    ...now.framings.filter((framing) => !known.has(framing)),
    ...before.framings.filter((framing) => !still.has(framing)),
  ];
  const worded = hasSameItems(before.words, now.words)
    ? plan
    : withWords(plan, canvas, collectWordSources(subject));
  if (changed.length === 0) return worded;
  return withSegments(worded, redrawSegments(worded, canvas, { ...work.edit, changed }));
}
