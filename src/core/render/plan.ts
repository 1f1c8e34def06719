import { type Cut, rangeStarts } from '../cut/cut';
import type { SeenPlace } from '../framing/following';
import type { Framing } from '../framing/framing';
import { type PictureWindow, WHOLE, type Window, computeWindow, toPictureWindow } from '../framing/window';
import { listShots } from '../cut/master-shots';
import type { Shot } from '../cut/shot';
import type { Source } from '../master/source';
import type { Canvas } from '../layout/canvas';
import { findFraming } from '../layout/find-framing';
import { chosenLayout, fitPixels, listPanes } from '../layout/layout';
import { type Pane } from '../layout/pane';
import { liveSize } from '../picture/live-area';
import type { CanvasRect, PictureRect, Rect, Size } from '../picture/size';
import type { Sharpening } from '../rate/encoding';
import { type FrameRate, scaleFrames, shownFrame } from '../time/frame-rate';
import { cardFrames, type ClipText, NO_TEXT } from '../words/clip-text';
import type { TextArt } from '../words/text-art';
import { findOverlays, planOverlays, type PlanOverlay, presence } from './overlays';
import { listVisibleSubjects } from './seen-subjects';

/** A pane over one segment: where it is drawn, and the framing that its windows come from. */
export interface PlanPane {
  /** Pixels of the canvas that the pane owns, on even edges. */
  pane: CanvasRect;
  /** Pixels of the canvas that picture is drawn on: the pane itself, or the fitted picture in it. */
  picture: CanvasRect;
  track: string;
  /** Null when the whole live area is shown. */
  framing: (Pick<Framing, 'keyframes' | 'turn'> & { subject?: readonly SeenPlace[] }) | null;
  /** Of the corners, and the diameter of the blur: pixels of the canvas. */
  radius: number;
  blur: number;
}

/** Output frames in a row that show one shot of one range. */
export interface PlanSegment {
  /** First output frame. */
  start: number;
  frames: number;
  /** Place of the master among the plan's sources. */
  source: number;
  /** Place of its range in the cut. */
  range: number;
  /** The first output frame of the range, the master frame that it shows, and the first that is not in it. */
  rangeStart: number;
  rangeIn: number;
  rangeOut: number;
  shot: string;
  /** The part of the picture that is picture, 0…1, and its size in square pixels. */
  live: PictureRect;
  liveSize: Size;
  panes: readonly PlanPane[];
}

/** Plan of every output frame. Pure data: preview and export draw from the same plan. */
export interface RenderPlan {
  width: number;
  height: number;
  rate: FrameRate;
  /** Background where no pane is: an intended band of this sRGB colour, or null for black bars. */
  ground: string | null;
  /** Fewest channels of the sound, where there is any: 1 or 2. */
  leastChannels: number;
  /** Of its pictures, under the words; null where they stay as they are. */
  sharpening: Sharpening | null;
  /** Output frames, those of the end card among them. */
  frames: number;
  /** The last output frames that show an end card: the picture under it stands still, and there is no sound. */
  cardFrames: number;
  sources: readonly Source[];
  segments: readonly PlanSegment[];
  /** Words over the picture, in drawing order. */
  overlays: readonly PlanOverlay[];
}

/** Pane of one output frame. */
export interface PlannedPane {
  pane: CanvasRect;
  picture: CanvasRect;
  track: string;
  radius: number;
  blur: number;
  /** 0…1 of the live area. */
  framed: Window;
  /** The same, 0…1 of the whole upright picture. */
  window: PictureWindow;
}

/** Output frame, computed. */
export interface PlannedFrame {
  source: number;
  masterFrame: number;
  /** The part of the picture that may show, 0…1, and its size in square pixels. */
  live: PictureRect;
  liveSize: Size;
  panes: PlannedPane[];
  /** Over the panes, in drawing order; and how much of each is there, 0…1. */
  words: { art: TextArt; presence: number }[];
}

/** Input that a plan is made from. */
export interface PlanInput {
  cut: Cut;
  /** Of every master; one that has none is a single shot. */
  shots: readonly Shot[];
  framings: readonly Framing[];
  sources: readonly Source[];
  /** Fewest channels that the outlet takes; 1 where it does not matter. */
  leastChannels?: number;
  text?: ClipText | undefined;
  /** Zones that the outlet puts over the picture, 0…1 of the canvas: captions keep clear of them. */
  zones?: readonly Rect[];
}

/**
 * The plan of a canvas: the cut's ranges split at the shots, each with the framing of its shot.
 * @throws RangeError for a range of a master that is not among the sources.
 */
export function createRenderPlan(canvas: Canvas, input: PlanInput): RenderPlan {
  const segments: PlanSegment[] = [];
  const { width, height, rate, layout } = canvas;
  const { ground } = chosenLayout(layout);
  const findSource = (id: string) => sourceAmong(input.sources, id);
  const starts = rangeStarts(input.cut, findSource, rate);
  const panes = listPanes(layout, canvas);
  input.cut.forEach((range, index) => {
    const source = findSource(range.master);
    const rangeStart = starts[index] as number;
    const total = (starts[index + 1] as number) - rangeStart;
    const before = segments[segments.length - 1];
    // One that is too short to be seen at this rate is heard with the range that it goes on from.
    if (total === 0 && before?.rangeOut === range.in && input.sources[before.source] === source)
      before.rangeOut = range.out;
    for (const shot of listShots(input.shots, source)) {
      const from = Math.max(range.in, shot.in) - range.in;
      const to = Math.min(range.out, shot.out) - range.in;
      if (to <= from) continue;
      const first = scaleFrames(from, source.rate, rate);
      const frames = Math.min(total, scaleFrames(to, source.rate, rate)) - first;
      if (frames <= 0) continue;
      segments.push({
        start: rangeStart + first,
        frames,
        source: input.sources.indexOf(source),
        range: index,
        rangeStart,
        rangeIn: range.in,
        rangeOut: range.out,
        shot: shot.id,
        ...shotPanes(canvas, input.framings, shot, source, panes),
      });
    }
  });
  const shown = starts[input.cut.length] as number;
  const text = input.text ?? NO_TEXT;
  const cardLasts = cardFrames(text.card, rate);
  const last = segments[segments.length - 1];
  // The picture under a card stands still.
  if (last) last.frames += cardLasts;
  const plan: RenderPlan = {
    width,
    height,
    rate,
    ground,
    leastChannels: input.leastChannels ?? 1,
    sharpening: canvas.encoding?.sharpening ?? null,
    frames: shown + cardLasts,
    cardFrames: cardLasts,
    sources: input.sources,
    segments,
    overlays: [],
  };
  return withWords(plan, canvas, input);
}

/** A plan with the words that a canvas has over its pictures; the pictures stay the same objects. */
export function withWords(
  plan: RenderPlan,
  canvas: Canvas,
  { cut, text = NO_TEXT, zones = [] }: Pick<PlanInput, 'cut' | 'text' | 'zones'>,
): RenderPlan {
  const { frames, rate } = plan;
  const masters = (id: string) => sourceAmong(plan.sources, id);
  const timeline = { cut, starts: rangeStarts(cut, masters, rate), masters, rate };
  const about = { timeline, frames, cardFrames: plan.cardFrames, picture: findPictureRect(plan), zones };
  const subjects = text.captions.cues.length > 0 ? listVisibleSubjects(plan) : [];
  return { ...plan, overlays: planOverlays(canvas, text, { ...about, subjects }) };
}

/** @throws RangeError for one that is not among them. */
function sourceAmong(sources: readonly Source[], id: string): Source {
  const source = sources.find((master) => master.id === id);
  if (!source) throw new RangeError(`the plan has no master ${id}`);
  return source;
}

/** Finds the maximum area of the pictures on a banded canvas; null where they cover all of it. */
export function findPictureRect({ ground, segments, width }: RenderPlan): CanvasRect | null {
  const pictures = segments.flatMap((segment) => segment.panes.map((pane) => pane.picture));
  if (ground === null || pictures.length === 0) return null;
  const top = Math.min(...pictures.map((picture) => picture.y));
  const bottom = Math.max(...pictures.map((picture) => picture.y + picture.height));
  return { x: 0, y: top, width, height: bottom - top };
}

function planPane(
  { rect, track, mode, radius, blur, turn, place }: Pane,
  canvas: Canvas,
  framings: readonly Framing[],
  shot: Shot,
  live: Size,
): PlanPane {
  const base = { pane: rect, track, radius, blur };
  const framing = findFraming(canvas, framings, shot, track);
  if (mode === 'fit' || (mode === 'choice' && framing.fit)) {
    return { ...base, picture: fitPixels(rect, live.width / live.height, place), framing: null };
  }
  const whole = ((framing.turn + turn) % 360) as Framing['turn'];
  const { keyframes, following } = framing;
  const subject = following && { subject: following.places };
  return { ...base, picture: rect, framing: { keyframes, turn: whole, ...subject } };
}

/** The segment that holds an output frame. @throws RangeError outside 0…frames−1. */
export function findSegment(plan: RenderPlan, frame: number): PlanSegment {
  const { segments } = plan;
  let [low, high] = [0, segments.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((segments[middle] as PlanSegment).start <= frame) low = middle;
    else high = middle - 1;
  }
  const segment = segments[low];
  if (!segment || frame < segment.start || frame >= segment.start + segment.frames)
    throw new RangeError(`the plan has ${plan.frames} frames, none numbered ${frame}`);
  return segment;
}

/** The master frame that an output frame of a segment shows. */
export function computeMasterFrame(plan: RenderPlan, segment: PlanSegment, frame: number): number {
  const source = plan.sources[segment.source] as Source;
  const moving = Math.min(frame, plan.frames - plan.cardFrames - 1);
  return segment.rangeIn + shownFrame(moving - segment.rangeStart, source.rate, plan.rate);
}

/** Computes what output frame `frame` shows. @throws RangeError outside 0…frames−1. */
export function plannedFrame(plan: RenderPlan, frame: number): PlannedFrame {
  const segment = findSegment(plan, frame);
  const masterFrame = computeMasterFrame(plan, segment, frame);
  return {
    source: segment.source,
    masterFrame,
    live: segment.live,
    liveSize: segment.liveSize,
    panes: planPanes(segment, masterFrame),
    words: findOverlays(plan.overlays, frame).map((overlay) => ({
      art: overlay.art,
      presence: presence(overlay, frame),
    })),
  };
}

/** The panes of a shot: what windows are worked out from. */
export type ShotPanes = Pick<PlanSegment, 'live' | 'liveSize' | 'panes'>;

/** The panes of one shot on a canvas, as a plan has them for each of its segments. */
export function shotPanes(
  canvas: Canvas,
  framings: readonly Framing[],
  shot: Shot,
  source: Source,
  panes: readonly Pane[] = listPanes(canvas.layout, canvas),
): ShotPanes {
  const live = shot.live ?? source.live;
  const size = liveSize(source.picture, live);
  return {
    live,
    liveSize: size,
    panes: panes.map((pane) => planPane(pane, canvas, framings, shot, size)),
  };
}

/** Windows of a shot's panes at a master frame. */
export function planPanes({ panes, live, liveSize }: ShotPanes, masterFrame: number): PlannedPane[] {
  return panes.map(({ framing, ...pane }) => {
    const aspects = {
      pane: pane.picture.width / pane.picture.height,
      live: liveSize.width / liveSize.height,
    };
    const framed = framing ? computeWindow(framing, masterFrame, aspects) : WHOLE;
    return { ...pane, framed, window: toPictureWindow(framed, live) };
  });
}

/**
 * Output frames whose geometry differs from the frame before: every frame of a moving segment, the first of a still
 * one. `count` is for how many frames it stands.
 */
export function* distinctFrames(plan: RenderPlan): Generator<{ frame: number; count: number }> {
  for (const { start, frames, panes } of plan.segments) {
    const moves = panes.some(({ framing }) => (framing?.keyframes.length ?? 0) > 1);
    if (!moves) yield { frame: start, count: frames };
    else for (let n = 0; n < frames; n++) yield { frame: start + n, count: 1 };
  }
}

/** Output frames in a row that come from master frames in a row. */
export interface PlanRun {
  source: number;
  /** First output frame. */
  start: number;
  frames: number;
  /** Master frames to decode, half-open. */
  in: number;
  out: number;
  /** The first master frame that its last range does not hold. */
  rangeOut: number;
}

/** A plan's runs in playing order; segments that go on in the same range are one. */
export function planRuns(plan: RenderPlan): PlanRun[] {
  const runs: (PlanRun & { range: number })[] = [];
  for (const segment of plan.segments) {
    const { start, frames, source, range, rangeOut } = segment;
    const out = computeMasterFrame(plan, segment, start + frames - 1) + 1;
    const last = runs[runs.length - 1];
    if (last && continuesRun(last, segment)) {
      last.frames += frames;
      last.out = out;
      last.range = range;
      last.rangeOut = rangeOut;
    } else
      runs.push({
        source,
        range,
        start,
        frames,
        in: computeMasterFrame(plan, segment, start),
        out,
        rangeOut,
      });
  }
  return runs.map(({ range: _range, ...run }) => run);
}

/**
 * Tells whether a segment continues a run: in the same range, or in one that begins where that range ends. At
 * another rate than the master's its sound may lie by less than a frame beside its picture then; begun anew,
 * as much of it would be heard twice.
 */
const continuesRun = (run: PlanRun & { range: number }, segment: PlanSegment): boolean =>
  run.source === segment.source && (run.range === segment.range || segment.rangeIn === run.rangeOut);
