import { type Cut, rangeFramesAt } from '../cut/cut';
import { type Framing, type Keyframe, plainFraming, windowAt } from '../framing/framing';
import type { Shot } from '../job/shot';
import type { Source } from '../job/source';
import { type Canvas, fittedPixels, panePixels } from '../layout/canvas';
import { inPicture, liveSize } from '../picture/live-area';
import type { Rect, Size } from '../picture/size';
import { type FrameRate, scaledFrames, shownFrame } from '../time/frame-rate';

/** A pane over one segment: where it is drawn, and the keyframes that its windows come from. */
export interface PlanPane {
  /** Pixels of the canvas that the pane owns, on even edges. */
  pane: Rect;
  /** Pixels of the canvas that picture is drawn on: the pane itself, or the fitted picture in it. */
  picture: Rect;
  /** Empty when the whole live area is shown. */
  keyframes: readonly Keyframe[];
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
  /** The first output frame of the range, and the master frame that it shows. */
  rangeStart: number;
  rangeIn: number;
  shot: string;
  /** The part of the picture that is picture, 0…1, and its size in square pixels. */
  live: Rect;
  liveSize: Size;
  panes: readonly PlanPane[];
}

/** What every output frame is made of. Pure data: preview and export draw from the same plan. */
export interface RenderPlan {
  width: number;
  height: number;
  rate: FrameRate;
  /** Output frames. */
  frames: number;
  sources: readonly Source[];
  segments: readonly PlanSegment[];
}

/** One pane of one output frame. */
export interface PlannedPane {
  pane: Rect;
  picture: Rect;
  /** 0…1 of the live area. */
  framed: Rect;
  /** The same, 0…1 of the whole upright picture. */
  window: Rect;
}

/** One output frame, worked out. */
export interface PlannedFrame {
  source: number;
  masterFrame: number;
  liveSize: Size;
  panes: PlannedPane[];
}

/** What a plan is made from. */
export interface PlanInput {
  cut: Cut;
  /** Of every master; one that has none is a single shot. */
  shots: readonly Shot[];
  framings: readonly Framing[];
  sources: readonly Source[];
}

const WHOLE: Rect = { x: 0, y: 0, width: 1, height: 1 };

/**
 * The plan of a canvas: the cut's ranges split at the shots, each with the framing of its shot.
 * @throws RangeError for a range of a master that is not among the sources.
 */
export function planOf(canvas: Canvas, input: PlanInput): RenderPlan {
  const segments: PlanSegment[] = [];
  const { width, height, rate } = canvas;
  let rangeStart = 0;
  input.cut.forEach((range, index) => {
    const at = input.sources.findIndex((one) => one.id === range.master);
    const source = input.sources[at];
    if (!source) throw new RangeError(`the plan has no master ${range.master}`);
    const total = rangeFramesAt(range, source.rate, rate);
    for (const shot of shotsIn(input.shots, source)) {
      const from = Math.max(range.in, shot.in) - range.in;
      const to = Math.min(range.out, shot.out) - range.in;
      if (to <= from) continue;
      const first = scaledFrames(from, source.rate, rate);
      const frames = Math.min(total, scaledFrames(to, source.rate, rate)) - first;
      if (frames <= 0) continue;
      const live = shot.live ?? source.live;
      const size = liveSize(source.picture, live);
      segments.push({
        start: rangeStart + first,
        frames,
        source: at,
        range: index,
        rangeStart,
        rangeIn: range.in,
        shot: shot.id,
        live,
        liveSize: size,
        panes: panesOf(canvas, input.framings, shot, size),
      });
    }
    rangeStart += total;
  });
  return { width, height, rate, frames: rangeStart, sources: input.sources, segments };
}

function shotsIn(shots: readonly Shot[], source: Source): Shot[] {
  const own = shots.filter((shot) => shot.master === source.id);
  const { id, frames } = source;
  const first = own[0];
  const last = own[own.length - 1];
  if (!first || !last) return [{ id: `${id}-1`, master: id, in: 0, out: frames, start: null, live: null }];
  // A conversion of rates may leave the last shot a frame short of its master.
  return last.out < frames ? [...own.slice(0, -1), { ...last, out: frames }] : own;
}

function panesOf(canvas: Canvas, framings: readonly Framing[], shot: Shot, live: Size): PlanPane[] {
  return canvas.layout.panes.map((pane) => {
    const pixels = panePixels(pane, canvas);
    if (pane.mode === 'fit')
      return { pane: pixels, picture: fittedPixels(pixels, live.width / live.height), keyframes: [] };
    const framing =
      framings.find((one) => one.shot === shot.id && one.track === pane.track) ??
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

/** The master frame that an output frame of a segment shows. */
export function masterFrameIn(plan: RenderPlan, segment: PlanSegment, frame: number): number {
  const source = plan.sources[segment.source] as Source;
  return segment.rangeIn + shownFrame(frame - segment.rangeStart, source.rate, plan.rate);
}

/** What output frame `frame` shows. @throws RangeError outside 0…frames−1. */
export function frameOf(plan: RenderPlan, frame: number): PlannedFrame {
  const segment = segmentAt(plan, frame);
  const masterFrame = masterFrameIn(plan, segment, frame);
  return {
    source: segment.source,
    masterFrame,
    liveSize: segment.liveSize,
    panes: panesAt(segment, masterFrame),
  };
}

/** Windows of a segment's panes at a master frame. */
export function panesAt({ panes, live, liveSize }: PlanSegment, masterFrame: number): PlannedPane[] {
  const aspect = liveSize.width / liveSize.height;
  return panes.map(({ pane, picture, keyframes }) => {
    const framed = keyframes.length
      ? windowAt(keyframes, masterFrame, picture.width / picture.height, aspect)
      : WHOLE;
    return { pane, picture, framed, window: inPicture(framed, live) };
  });
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

/** Output frames in a row that come from master frames in a row. */
export interface PlanRun {
  source: number;
  /** First output frame. */
  start: number;
  frames: number;
  /** Master frames to decode, half-open. */
  in: number;
  out: number;
}

/** A plan's runs in playing order; segments that go on in the same range are one. */
export function planRuns(plan: RenderPlan): PlanRun[] {
  const runs: (PlanRun & { range: number })[] = [];
  for (const segment of plan.segments) {
    const { start, frames, source, range } = segment;
    const out = masterFrameIn(plan, segment, start + frames - 1) + 1;
    const last = runs[runs.length - 1];
    if (last && goesOn(plan, last, segment)) {
      last.frames += frames;
      last.out = out;
      last.range = range;
    } else runs.push({ source, range, start, frames, in: masterFrameIn(plan, segment, start), out });
  }
  return runs.map(({ range: _range, ...run }) => run);
}

/** Whether a segment takes up decoding where a run ends: in the same range, or in the next master frame at one rate. */
function goesOn(plan: RenderPlan, run: PlanRun & { range: number }, segment: PlanSegment): boolean {
  if (run.source !== segment.source) return false;
  if (run.range === segment.range) return true;
  const { num, den } = (plan.sources[segment.source] as Source).rate;
  return plan.rate.num * den === plan.rate.den * num && segment.rangeIn === run.out;
}

/** What another rate than the master's costs a plan: frames shown twice or more, and master frames never shown. */
export function rateCost(plan: RenderPlan): { repeated: number; vanished: number } {
  const cost = { repeated: 0, vanished: 0 };
  for (const run of planRuns(plan)) {
    const source = plan.sources[run.source] as Source;
    let before = -1;
    let shown = 0;
    for (let n = 0; n < run.frames; n++) {
      const frame = shownFrame(n, source.rate, plan.rate);
      if (frame === before) cost.repeated += 1;
      else shown += 1;
      before = frame;
    }
    cost.vanished += run.out - run.in - shown;
  }
  return cost;
}
