import { activeClip, type Job, listSources } from '@core/job/job';
import type { Canvas } from '@core/layout/canvas';
import type { Source } from '@core/master/source';
import { findTarget } from '@core/outlets/outlets';
import { allZones } from '@core/outlets/placement';
import type { PlanOverlay } from '@core/render/overlays';
import { createRenderPlan, type PlanSegment, type RenderPlan, withWords } from '@core/render/plan';
import { redrawSegments } from '@core/render/redraw-segments';
import { rateValue } from '@core/time/frame-rate';
import { type ClipText, NO_TEXT } from '@core/words/clip-text';
import { coverText } from '@core/words/cover';
import { canvasView } from '@media/play/player-protocol';
import { sheetsNow } from '../job';
import { type Draft, withDraft } from './player-store';

/** By view of a canvas, for each master the plan of its whole length with the card: output frame n is its frame n. */
export type PreviewPlans = Readonly<Record<string, RenderPlan[]>>;

/** Words that are shown but not kept yet, and the canvases with what they have of their own of them. */
export interface WordsDraft {
  text: ClipText;
  canvases: readonly Canvas[];
  /** Side that is shown: the clip, or in its place its end card or its cover. */
  side: 'clip' | 'card' | 'cover';
}

/** Plans the preview of every canvas of the clip that a job is working on. */
export function planPreviews(job: Job): PreviewPlans {
  const { edit } = job;
  const sources = listSources(job);
  const clip = activeClip(edit);
  const listPlans = (canvas: Canvas) =>
    sources.map((source) =>
      createRenderPlan(
        { ...canvas, rate: source.rate },
        { ...edit, ...collectPreviewWords(clip.text, canvas, source), sources: [source] },
      ),
    );
  return Object.fromEntries(clip.canvases.map((canvas) => [canvasView(canvas.id), listPlans(canvas)]));
}

/** Collects what a preview lays words from: the whole of a master, and the clip's text over it. */
function collectPreviewWords(text: ClipText = NO_TEXT, canvas: Canvas, source: Source) {
  return {
    cut: [{ master: source.id, in: 0, out: source.frames }],
    text,
    zones: allZones(findTarget(sheetsNow(), canvas).placement),
  };
}

/** The player's plans and playhead while words are drafted. */
interface OnPlayer {
  plans: PreviewPlans;
  sources: readonly Source[];
  isOnScreen(view: string): boolean;
  /** The frame of the playhead, while it stands; null while it plays. */
  playhead: number | null;
}

/** Lays drafted words over the plans of the canvases on screen: overlays by view, for each source. */
export function draftWords(
  { text, canvases, side }: WordsDraft,
  { plans, sources, isOnScreen, playhead }: OnPlayer,
): Record<string, (readonly PlanOverlay[])[]> {
  const seen = canvases.filter((canvas) => isOnScreen(canvasView(canvas.id)));
  return Object.fromEntries(
    seen.map((canvas) => {
      const view = canvasView(canvas.id);
      const overlays = (plans[view] ?? []).map((plan, i) => {
        if (side === 'card') return layCard(plan, canvas, text);
        const words = collectPreviewWords(
          side === 'cover' ? coverText(text) : text,
          canvas,
          sources[i] as Source,
        );
        const drawn = withWords(plan, { ...canvas, rate: plan.rate }, words).overlays;
        return playhead === null ? drawn : selectNear(playhead, drawn, plan);
      });
      return [view, overlays];
    }),
  );
}

/** How far from the playhead drafted overlays are sent, in seconds: a draft is kept before it can play that far. */
const NEAR_SECONDS = 5;

/** Selects the overlays near the playhead: sending some hundred more would cost a part of a frame. */
function selectNear(frame: number, overlays: readonly PlanOverlay[], { rate }: RenderPlan): PlanOverlay[] {
  const reach = Math.ceil(NEAR_SECONDS * rateValue(rate));
  return overlays.filter(({ from, to }) => from <= frame + reach && to >= frame - reach);
}

/** Lays the end card over all of a plan, wherever in it the playhead is. */
function layCard(plan: RenderPlan, canvas: Canvas, text: ClipText): PlanOverlay[] {
  const words = { cut: [], text: { ...text, captions: NO_TEXT.captions }, zones: [] };
  const whole = { ...plan, cardFrames: plan.frames };
  const { overlays } = withWords(whole, canvas, words);
  return overlays
    .filter(({ from, to }) => from === 0 && to === plan.frames)
    .map((overlay) => ({ ...overlay, fade: 0 }));
}

/** Draws the segments anew that dragged framings change, by view and source. */
export function redrawDragged(job: Job, draft: Draft, plans: PreviewPlans): Record<string, PlanSegment[][]> {
  const { edit } = withDraft(job, draft);
  const change = { ...edit, changed: draft.framings };
  return Object.fromEntries(
    activeClip(edit).canvases.map((canvas) => {
      const view = canvasView(canvas.id);
      return [view, (plans[view] ?? []).map((plan) => redrawSegments(plan, canvas, change))];
    }),
  );
}
