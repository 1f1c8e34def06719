import { create } from 'zustand';
import { type Cut, rangeAt } from '@core/cut/cut';
import type { Framing } from '@core/framing/framing';
import { applyCommand, type Owner } from '@core/job/commands/commands';
import { activeClip, type Job, mainMaster, sourcesIn } from '@core/job/job';
import type { Source } from '@core/master/source';
import { clamp, type Size } from '@core/picture/size';
import type { Canvas } from '@core/layout/canvas';
import { targetOf } from '@core/outlets/outlets';
import { allZones } from '@core/outlets/placement';
import type { PlanOverlay } from '@core/render/overlays';
import { planOf, type PlanSegment, type RenderPlan, withWords } from '@core/render/plan';
import { redrawnSegments } from '@core/render/redrawn';
import { rateValue } from '@core/time/frame-rate';
import type { Trouble } from '@core/trouble/trouble';
import { type ClipText, NO_TEXT } from '@core/words/clip-text';
import { coverText } from '@core/words/cover';
import { Player } from '@media/play/player';
import { canvasView, type Piece, type Quality, type Speed, type View } from '@media/play/player-protocol';
import { sheetsNow } from './sheets';

export { canvasView };
export type { Quality, Speed, View };

interface PlayerState {
  /** The job on the player, or null. */
  jobId: string | null;
  /** The master whose frame is wanted on screen, and the frame; while playing, the one shown. */
  master: string;
  frame: number;
  /** The frame whose picture is on screen, or null before the first. */
  shown: number | null;
  playing: boolean;
  /** While playing a cut, which of its ranges is on screen. */
  range: number | null;
  /** How finely it plays, and whether that is chosen by itself. */
  quality: Quality;
  wish: Quality | 'auto';
  trouble: Trouble | null;
  /** Framings being dragged, not yet a step of the job. */
  draft: Draft | null;
}

/** How fast ranges are played, and whether the end card follows. */
interface Playing {
  speed?: Speed;
  card?: boolean;
}

/** Framings that are shown but not kept yet, and whose they are. */
export interface Draft {
  framings: Framing[];
  owner: Owner;
}

const NOTHING = {
  jobId: null,
  master: '',
  frame: 0,
  shown: null,
  playing: false,
  range: null,
  quality: 'full',
  trouble: null,
  draft: null,
} as const;

export const usePlayer = create<PlayerState>(() => ({ ...NOTHING, wish: 'auto' }));

let player: Player | null = null;
let current: Job | null = null;
let opened: Source[] = [];
let plans: Record<string, RenderPlan[]> = {};
let sizes: Partial<Record<View, Size>> = {};
/** The end card or the cover that is shown in the place of the clip, whatever changes in the job. */
let standing: WordsDraft | null = null;
/** The range of the cut that the first piece under way is of. */
let firstRange = 0;
const latest: Partial<Record<View, ImageBitmap>> = {};
const painters: Partial<Record<View, (picture: ImageBitmap) => void>> = {};

/** By canvas of a job's clip, for each master the plan of its whole length with the card: output frame n is its frame n. */
function previewPlans(job: Job): Record<string, RenderPlan[]> {
  const { edit } = job;
  const sources = sourcesIn(job);
  const clip = activeClip(edit);
  const plansOf = (canvas: Canvas) =>
    sources.map((source) =>
      planOf(
        { ...canvas, rate: source.rate },
        { ...edit, ...previewWords(clip.text, canvas, source), sources: [source] },
      ),
    );
  return Object.fromEntries(clip.canvases.map((canvas) => [canvasView(canvas.id), plansOf(canvas)]));
}

/** The words over the whole of a master, and after it. */
function previewWords(text: ClipText = NO_TEXT, canvas: Canvas, source: Source) {
  return {
    cut: [{ master: source.id, in: 0, out: source.frames }],
    text,
    zones: allZones(targetOf(sheetsNow(), canvas).placement),
  };
}

/** Words that are shown but not kept yet, and the canvases with what they have of their own of them. */
export interface WordsDraft {
  text: ClipText;
  canvases: readonly Canvas[];
  /** What is shown: the clip, or in its place its end card or its cover. */
  side: 'clip' | 'card' | 'cover';
}

/** What a hand moves or writes is kept before the playhead can be so far away, in seconds. */
const NEAR = 5;

/** The overlays that may be seen before a draft is kept: sending some hundred more would cost a part of a frame. */
function near(overlays: readonly PlanOverlay[], { rate }: RenderPlan): PlanOverlay[] {
  const { frame, playing } = usePlayer.getState();
  const reach = Math.ceil(NEAR * rateValue(rate));
  return playing
    ? overlays.slice()
    : overlays.filter(({ from, to }) => from <= frame + reach && to >= frame - reach);
}

/** By canvas that is on screen and source, the words of a draft on the plans that are on the player. */
function draftedWords({ text, canvases, side }: WordsDraft): Record<string, PlanOverlay[][]> {
  const seen = canvases.filter((canvas) => sizes[canvasView(canvas.id)] !== undefined);
  return Object.fromEntries(
    seen.map((canvas) => {
      const view = canvasView(canvas.id);
      const overlays = (plans[view] ?? []).map((plan, i) => {
        if (side === 'card') return cardOverlays(plan, canvas, text);
        const words = previewWords(side === 'cover' ? coverText(text) : text, canvas, opened[i] as Source);
        return near(withWords(plan, { ...canvas, rate: plan.rate }, words).overlays, plan);
      });
      return [view, overlays];
    }),
  );
}

/** An end card over all of a plan, wherever in it the playhead is. */
function cardOverlays(plan: RenderPlan, canvas: Canvas, text: ClipText): PlanOverlay[] {
  const words = { cut: [], text: { ...text, captions: NO_TEXT.captions }, zones: [] };
  const whole = { ...plan, cardFrames: plan.frames };
  const overlays = withWords(whole, canvas, words).overlays;
  return overlays
    .filter(({ from, to }) => from === 0 && to === plan.frames)
    .map((overlay) => ({ ...overlay, fade: 0 }));
}

/** What framings that are being dragged change of the plans on the player. */
function movedSegments(job: Job, draft: Draft): Record<string, PlanSegment[][]> {
  const { edit } = drafted(job, draft);
  const change = { ...edit, changed: draft.framings };
  return Object.fromEntries(
    activeClip(edit).canvases.map((canvas) => {
      const view = canvasView(canvas.id);
      return [view, (plans[view] ?? []).map((plan) => redrawnSegments(plan, canvas, change))];
    }),
  );
}

/** A job as it would be with framings that are being dragged. */
export function drafted(job: Job, draft: Draft | null): Job {
  if (!draft) return job;
  return { ...job, edit: applyCommand(job.edit, { type: 'set-framings', act: 'move', ...draft }) };
}

/** Puts a job on the player, or hands it a change of the job that is on it. */
export function playJob(job: Job): void {
  if (usePlayer.getState().jobId !== job.id) {
    leavePlayer();
    const [first] = activeClip(job.edit).cut;
    const master = first?.master ?? mainMaster(job).id;
    usePlayer.setState({ jobId: job.id, master, frame: first?.in ?? 0 });
  }
  current = job;
  const sources = sourcesIn(job);
  const same = JSON.stringify(sources) === JSON.stringify(opened);
  opened = sources;
  if (!player) player = openPlayer(sources);
  else if (!same) player.open(sources);
  plans = previewPlans(job);
  player.setPlans(plans);
  const { draft } = usePlayer.getState();
  if (draft) setDraft(draft);
  if (standing) setWordsDraft(standing);
}

function openPlayer(sources: Source[]): Player {
  const made = new Player(sources, {
    onFrame({ source, frame, piece, pictures }) {
      const master = opened[source]?.id;
      const { playing } = usePlayer.getState();
      usePlayer.setState({
        shown: frame,
        ...(playing && master !== undefined && piece !== null
          ? { frame, master, range: firstRange + piece }
          : {}),
      });
      for (const [view, picture] of Object.entries(pictures) as [View, ImageBitmap][]) {
        latest[view]?.close();
        latest[view] = picture;
        painters[view]?.(picture);
      }
    },
    onQuality: (quality) => usePlayer.setState({ quality }),
    onEnded: () => usePlayer.setState({ playing: false, range: null }),
    onTrouble: (trouble) => usePlayer.setState({ trouble, playing: false }),
  });
  made.setViews(sizes);
  const { master, frame } = usePlayer.getState();
  made.show(Math.max(0, placeOf(master)), frame);
  return made;
}

const placeOf = (master: string): number => opened.findIndex((source) => source.id === master);

/** A master of the job on the player got its proxy: it is used from now on. */
export function proxyMade(fingerprint: string): void {
  if (opened.some((source) => source.fingerprint === fingerprint)) player?.findProxies();
}

/** Ends the player: the job was left, or deleted, or its bytes came back. */
export function leavePlayer(): void {
  player?.close();
  player = null;
  current = null;
  standing = null;
  opened = [];
  for (const view of Object.keys(latest) as View[]) {
    latest[view]?.close();
    delete latest[view];
  }
  usePlayer.setState(NOTHING);
}

/** Puts a view on screen. `paint` must draw at once: the picture is closed when the next comes. */
export function mountView(view: View, size: Size, paint: (picture: ImageBitmap) => void): () => void {
  painters[view] = paint;
  sizes = { ...sizes, [view]: size };
  player?.setViews(sizes);
  const known = latest[view];
  if (known) paint(known);
  return () => {
    if (painters[view] !== paint) return;
    delete painters[view];
    const { [view]: _gone, ...rest } = sizes;
    sizes = rest;
    player?.setViews(sizes);
  };
}

/** Shows a frame of a master, or of the one on screen; playing stops. */
export function showFrame(frame: number, master = usePlayer.getState().master): void {
  const source = opened[placeOf(master)];
  if (!current || !source) return;
  const kept = clamp(frame, 0, source.frames - 1);
  usePlayer.setState({ master, frame: kept, playing: false, range: null });
  player?.show(placeOf(master), kept);
}

export const stepFrames = (by: number): void => showFrame(usePlayer.getState().frame + by);

/** Plays the clip on from the frame on screen, or from its start when that is its end or not in it; or pauses. */
export function togglePlay(): void {
  const { playing, frame, master } = usePlayer.getState();
  if (playing) return pause();
  if (!current) return;
  const { cut } = activeClip(current.edit);
  const index = rangeAt(cut, master, frame);
  const range = cut[index];
  const ended = index === cut.length - 1 && range !== undefined && frame >= range.out - 1;
  if (!range || ended) return playRanges(cut, 0);
  playRanges([{ ...range, in: frame }, ...cut.slice(index + 1)], index);
}

function pause(): void {
  player?.pause();
  usePlayer.setState({ playing: false, range: null });
}

/** Plays a cut from its start, and the end card: the clip's own cut, or one that is only proposed. */
export function playCut(cut: Cut, speed: Speed = 1): void {
  playRanges(cut, 0, { speed });
}

/** Plays pieces that are only to be looked at. */
export function playPieces(pieces: Cut): void {
  playRanges(pieces, 0, { card: false });
}

function playRanges(cut: Cut, from: number, { speed = 1, card = true }: Playing = {}): void {
  const [first] = cut;
  if (!player || !first) return;
  const pieces: Piece[] = cut.map((range) => ({
    source: placeOf(range.master),
    from: range.in,
    to: range.out,
  }));
  firstRange = from;
  usePlayer.setState({ playing: true, master: first.master, frame: first.in, range: from });
  player.play(pieces, usePlayer.getState().wish, speed, card);
}

/** Chooses how finely it plays; `auto` steps down by itself where playing falls behind. */
export function setQuality(wish: Quality | 'auto'): void {
  usePlayer.setState({ wish, ...(wish === 'auto' ? {} : { quality: wish }) });
}

/** Shows framings while they are being dragged; null goes back to the job's own. */
export function setDraft(draft: Draft | null): void {
  usePlayer.setState({ draft });
  if (current) player?.redraw(draft ? movedSegments(current, draft) : {});
}

/** Shows words while they are being moved or written; null goes back to the job's own. */
export function setWordsDraft(draft: WordsDraft | null): void {
  standing = draft && draft.side !== 'clip' ? draft : null;
  player?.showWords(draft ? draftedWords(draft) : {});
}
