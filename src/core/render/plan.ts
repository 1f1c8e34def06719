import type { Cut } from '../cut/cut';
import { type Framing, type Keyframe, plainFraming, windowAt } from '../framing/framing';
import { type Canvas, fittedPixels, panePixels } from '../layout/canvas';
import type { Rect, Size } from '../picture/size';
import type { FrameRate } from '../time/frame-rate';

/** One shot of the master, half-open in its frames. */
export interface ShotRange {
  id: string;
  in: number;
  out: number;
}

/** A pane over one segment: where it is drawn, and the keyframes that its windows come from. */
export interface PlanPane {
  /** Pixels of the canvas that the pane owns, on even edges. */
  pane: Rect;
  /** Pixels of the canvas that picture is drawn on: the pane itself, or the fitted picture in it. */
  picture: Rect;
  /** Empty when the whole live area is shown. */
  keyframes: readonly Keyframe[];
}

/** Output frames in a row that show master frames in a row of one shot. */
export interface PlanSegment {
  /** First output frame. */
  start: number;
  frames: number;
  /** Master frame of the first output frame. */
  master: number;
  shot: string;
  panes: readonly PlanPane[];
}

/** What every output frame is made of. Pure data: preview and export draw from the same plan. */
export interface RenderPlan {
  width: number;
  height: number;
  rate: FrameRate;
  /** Output frames. */
  frames: number;
  /** Size of the live area in square pixels of the master. */
  live: Size;
  segments: readonly PlanSegment[];
}

/** One output frame, worked out. */
export interface PlannedFrame {
  masterFrame: number;
  panes: { pane: Rect; picture: Rect; window: Rect }[];
}

/** What a plan is made from. */
export interface PlanInput {
  cut: Cut;
  shots: readonly ShotRange[];
  framings: readonly Framing[];
  live: Size;
}

const WHOLE: Rect = { x: 0, y: 0, width: 1, height: 1 };

/** The plan of a canvas: the cut's ranges split at the shots, each with the framing of its shot. */
export function planOf(canvas: Canvas, input: PlanInput): RenderPlan {
  const segments: PlanSegment[] = [];
  let start = 0;
  for (const range of input.cut) {
    for (const shot of input.shots) {
      const from = Math.max(range.in, shot.in);
      const frames = Math.min(range.out, shot.out) - from;
      if (frames <= 0) continue;
      const panes = panesOf(canvas, input, shot);
      segments.push({ start, frames, master: from, shot: shot.id, panes });
      start += frames;
    }
  }
  const { width, height, rate } = canvas;
  return { width, height, rate, frames: start, live: input.live, segments };
}

function panesOf(canvas: Canvas, input: PlanInput, shot: ShotRange): PlanPane[] {
  const liveAspect = input.live.width / input.live.height;
  return canvas.layout.panes.map((pane) => {
    const pixels = panePixels(pane, canvas);
    if (pane.mode === 'fit')
      return { pane: pixels, picture: fittedPixels(pixels, liveAspect), keyframes: [] };
    const framing =
      input.framings.find((one) => one.shot === shot.id && one.track === pane.track) ??
      plainFraming(shot.id, pane.track, shot.in);
    return { pane: pixels, picture: pixels, keyframes: framing.keyframes };
  });
}

/** The segment that holds an output frame. @throws RangeError outside 0…frames−1. */
export function segmentAt(plan: RenderPlan, frame: number): PlanSegment {
  const segment = plan.segments.find((one) => frame >= one.start && frame < one.start + one.frames);
  if (!segment) throw new RangeError(`the plan has ${plan.frames} frames, none numbered ${frame}`);
  return segment;
}

/** What output frame `frame` shows. @throws RangeError outside 0…frames−1. */
export function frameOf(plan: RenderPlan, frame: number): PlannedFrame {
  const segment = segmentAt(plan, frame);
  const masterFrame = segment.master + frame - segment.start;
  return { masterFrame, panes: panesAt(segment.panes, masterFrame, plan.live) };
}

/** Windows of a segment's panes at a master frame. */
export function panesAt(panes: readonly PlanPane[], masterFrame: number, live: Size): PlannedFrame['panes'] {
  return panes.map(({ pane, picture, keyframes }) => ({
    pane,
    picture,
    window: keyframes.length
      ? windowAt(keyframes, masterFrame, picture.width / picture.height, live.width / live.height)
      : WHOLE,
  }));
}

/**
 * Output frames whose geometry differs from the frame before: every frame of a moving segment, the first of a still
 * one. `count` is for how many frames it stands.
 */
export function* distinctFrames(plan: RenderPlan): Generator<{ frame: number; count: number }> {
  for (const { start, frames, panes } of plan.segments) {
    const moves = panes.some(({ keyframes }) => keyframes.length > 1);
    if (!moves) yield { frame: start, count: frames };
    else for (let n = 0; n < frames; n++) yield { frame: start + n, count: 1 };
  }
}

/** Master frames that a plan shows, as ranges in playing order, joined where they touch. */
export function masterRanges(plan: RenderPlan): { in: number; out: number }[] {
  const ranges: { in: number; out: number }[] = [];
  for (const { master, frames } of plan.segments) {
    const last = ranges[ranges.length - 1];
    if (last && last.out === master) last.out = master + frames;
    else ranges.push({ in: master, out: master + frames });
  }
  return ranges;
}
