import { computeMasterFrame, type RenderPlan } from './plan';

/** Master frames in a row to decode, half-open, for one or several ranges of a cut that go on without a break. */
export interface DecodeRun {
  source: number;
  in: number;
  out: number;
  /** Places of the ranges in the cut. */
  firstRange: number;
  lastRange: number;
}

/**
 * Plans what to decode for several plans of one cut, each master frame once for all of them, in playing
 * order. Plans may run at different rates: then each takes of a run the frames that it shows.
 *
 * @throws RangeError for plans of different cuts.
 */
export function decodeRuns(plans: readonly RenderPlan[]): DecodeRun[] {
  const byRange: DecodeRun[] = [];
  for (const plan of plans) {
    for (const segment of plan.segments) {
      const { range, source, start, frames } = segment;
      const from = computeMasterFrame(plan, segment, start);
      const to = computeMasterFrame(plan, segment, start + frames - 1) + 1;
      const known = byRange[range];
      if (known && known.source !== source) throw new RangeError('the plans are of different cuts');
      byRange[range] = {
        source,
        in: Math.min(known?.in ?? from, from),
        out: Math.max(known?.out ?? to, to),
        firstRange: range,
        lastRange: range,
      };
    }
  }
  const runs: DecodeRun[] = [];
  for (const next of byRange) {
    // A range so short that no plan shows a frame of it.
    if (!next) continue;
    const last = runs[runs.length - 1];
    if (last && last.source === next.source && last.out === next.in) {
      runs[runs.length - 1] = { ...last, out: next.out, lastRange: next.lastRange };
    } else runs.push(next);
  }
  return runs;
}
