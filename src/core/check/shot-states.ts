import { activeClip, listSources, type Work } from '../job/job';
import { listShots } from '../cut/master-shots';
import type { Shot } from '../cut/shot';
import { toDrawnFraming, type Framing } from '../framing/framing';
import { computeCoverage } from '../proof/coverage';
import { listEnlargedByShot } from '../render/enlarged';
import { shortHash } from '../figures/short-hash';
import { createRenderPlan, type RenderPlan } from '../render/plan';
import { SOFT } from './rules/enlargement';
import { listSharedPieces } from './rules/panes';

/** Why a person should look at a shot again. */
export type LookReason = 'bare' | 'soft' | 'twice' | 'changed';

/** Where a shot's framing stands. */
export interface ShotState {
  shot: Shot;
  /** True when any canvas of the clip has a framing of it that a person or the demo made. */
  framed: boolean;
  keyframed: boolean;
  /** Canvases of the clip that frame it by themselves. */
  detached: string[];
  /** True when a person played it and ticked it as it is now. */
  ticked: boolean;
  look: LookReason[];
}

/**
 * A hash of all that a shot's look depends on: where it lies in its master, how that is repaired, its framings and
 * what they are drawn on. Two with the same look the same, so a tick is void once any of it changes.
 */
export function lookSignature({ edit }: Pick<Work, 'edit'>, shot: Shot): string {
  const of = (framings: readonly Framing[]) =>
    framings.filter((framing) => framing.shot === shot.id).map(toDrawnFraming);
  const { canvases } = activeClip(edit);
  const drawn = canvases.map(({ width, height, layout, detached }) => [width, height, layout, of(detached)]);
  const { master, in: first, out, live } = shot;
  return shortHash([[master, first, out, live], edit.repairs[master] ?? null, of(edit.framings), drawn]);
}

/** Where the framing of every shot in the clip stands, on all its canvases, in the order of the cut. */
export function shotStates(work: Work): ShotState[] {
  const { edit } = work;
  const { canvases } = activeClip(edit);
  const plans = canvases.map((canvas) =>
    createRenderPlan(canvas, { ...edit, cut: activeClip(edit).cut, sources: listSources(work) }),
  );
  const looks = plans.map(findLookReasons);
  const shown = new Set(plans[0]?.segments.map((segment) => segment.shot));
  const shots = listSources(work).flatMap((source) => listShots(edit.shots, source));
  return shots
    .filter((shot) => shown.has(shot.id))
    .map((shot) => {
      const own = canvases.filter((canvas) => canvas.detached.some((framing) => framing.shot === shot.id));
      const framings = [...edit.framings, ...own.flatMap((canvas) => canvas.detached)].filter(
        (framing) => framing.shot === shot.id,
      );
      const tick = edit.ticks[shot.id];
      const ticked = tick !== undefined && tick === lookSignature(work, shot);
      const changed: LookReason[] = tick !== undefined && !ticked ? ['changed'] : [];
      const look = new Set([...changed, ...looks.flatMap((look) => look.get(shot.id) ?? [])]);
      return {
        shot,
        framed: framings.length > 0,
        keyframed: framings.some((framing) => framing.keyframes.length > 1),
        detached: own.map((canvas) => canvas.id),
        ticked,
        look: [...look],
      };
    });
}

function findLookReasons(plan: RenderPlan): Map<string, LookReason[]> {
  const looks = new Map<string, LookReason[]>();
  const add = (shot: string, reason: LookReason) => {
    const known = looks.get(shot) ?? [];
    if (!known.includes(reason)) looks.set(shot, [...known, reason]);
  };
  for (const shot of computeCoverage(plan).bareShots) add(shot, 'bare');
  for (const shared of listSharedPieces(plan)) if (shared.subject) add(shared.shot, 'twice');
  for (const [shot, { worst }] of listEnlargedByShot(plan)) if (worst > SOFT) add(shot, 'soft');
  return looks;
}
