import { formatCount } from '../figures/figures';
import type { Source } from '../master/source';
import { shownFrame } from '../time/frame-rate';
import { planRuns, type RenderPlan } from './plan';

/**
 * Cost of another rate than the master's: output frames that repeat the one before, master frames never
 * shown.
 */
export interface RateCost {
  repeated: number[];
  vanished: number[];
}

/** Counts the frames that another rate than the master's costs a plan. */
export function rateCost(plan: RenderPlan): RateCost {
  const cost: RateCost = { repeated: [], vanished: [] };
  for (const run of planRuns(plan)) {
    const source = plan.sources[run.source] as Source;
    let before = -1;
    for (let n = 0; n < run.frames; n++) {
      const frame = shownFrame(n, source.rate, plan.rate);
      if (frame === before) cost.repeated.push(run.start + n);
      for (let gone = before + 1; gone < frame; gone++) cost.vanished.push(run.in + gone);
      before = frame;
    }
    // What the last frame of the clip leaves of the range.
    for (let gone = run.in + before + 1; gone < run.rangeOut; gone++) cost.vanished.push(gone);
  }
  return cost;
}

/** Frames named before the rest is only counted. */
const NAMED = 4;

/** Frame numbers for people: all of a few, else the first, how many more, and the step where it is even. */
function formatFrames(frames: readonly number[]): string {
  const named = frames.slice(0, NAMED).join(', ');
  if (frames.length <= NAMED) return named;
  const step = (frames[1] as number) - (frames[0] as number);
  const even = step > 1 && frames.every((frame, i) => frame === (frames[0] as number) + i * step);
  return `${named} and ${frames.length - NAMED} more${even ? `, every ${step} frames` : ''}`;
}

/** Says which frames the plan's rate repeats and which vanish. */
export function costWords(plan: RenderPlan): string {
  const { repeated, vanished } = rateCost(plan);
  if (repeated.length + vanished.length === 0) return 'every frame once';
  const parts = [];
  if (repeated.length > 0)
    parts.push(
      `${formatCount(repeated.length, 'frame')} of the clip ${repeated.length === 1 ? 'repeats' : 'repeat'} (${formatFrames(repeated)})`,
    );
  if (vanished.length > 0)
    parts.push(
      `${formatCount(vanished.length, 'frame')} of the master ${vanished.length === 1 ? 'vanishes' : 'vanish'} (${formatFrames(vanished)})`,
    );
  return parts.join('; ');
}
