import { z } from 'zod';
import { type Cut, type MasterLengths, type Range, rangeSchema } from '../cut/cut';
import { memoize } from '../figures/memoize';
import { scaleFrames, toSeconds, shownFrame } from '../time/frame-rate';
import type { FrameRate } from '../time/frame-rate';

/**
 * Frames of masters that words belong to, in playing order: so they follow the cut, and come back when what they belong
 * to does.
 */
export const spansSchema = z.array(rangeSchema).min(1);
export type Spans = z.infer<typeof spansSchema>;

/** Output frames in a row, half-open. */
export interface Stretch {
  from: number;
  to: number;
}

/** A cut at a canvas's rate, and where each of its ranges begins. */
export interface Timeline {
  cut: Cut;
  /** The first output frame of each range, and the frames of the whole cut: `rangeStarts` of cut.ts. */
  starts: readonly number[];
  masters: MasterLengths;
  rate: FrameRate;
}

/** Ranges of one master by where they begin, each with the furthest end of those up to it. */
type RangeIndex = readonly { index: number; in: number; out: number; furthest: number }[];

/** The index of a cut, by master. */
const indexOf = memoize((cut: Cut): Map<string, RangeIndex> => {
  const byMaster = new Map<string, { index: number; in: number; out: number }[]>();
  for (const [index, range] of cut.entries()) {
    const own = byMaster.get(range.master) ?? [];
    own.push({ index, in: range.in, out: range.out });
    byMaster.set(range.master, own);
  }
  return new Map(
    [...byMaster].map(([master, ranges]) => {
      let furthest = 0;
      const sorted = ranges.sort((a, b) => a.in - b.in);
      return [
        master,
        sorted.map((range) => ({ ...range, furthest: (furthest = Math.max(furthest, range.out)) })),
      ] as const;
    }),
  );
});

/** Places in the cut of the ranges that have frames of a span. */
function* findRanges(span: Range, cut: Cut): Generator<number, void, undefined> {
  const ranges = indexOf(cut).get(span.master) ?? [];
  // The first that begins behind the span.
  let [low, high] = [0, ranges.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((ranges[middle]?.in ?? 0) < span.out) low = middle + 1;
    else high = middle;
  }
  for (let at = low - 1; at >= 0; at--) {
    const range = ranges[at] as RangeIndex[number];
    if (range.furthest <= span.in) return;
    if (range.out > span.in) yield range.index;
  }
}

/** The output frames at which spans are in the cut, in playing order; those that touch are one stretch. */
export function toStretches(spans: readonly Range[], { cut, starts, masters, rate }: Timeline): Stretch[] {
  const found: Stretch[] = [];
  for (const span of spans) {
    for (const index of findRanges(span, cut)) {
      const range = cut[index] as Range;
      const own = masters(range.master).rate;
      const start = starts[index] as number;
      const end = starts[index + 1] as number;
      const at = (frame: number) => Math.min(end, start + scaleFrames(frame - range.in, own, rate));
      const from = at(Math.max(span.in, range.in));
      const to = at(Math.min(span.out, range.out));
      if (to > from) found.push({ from, to });
    }
  }
  found.sort((a, b) => a.from - b.from);
  return found.reduce<Stretch[]>((joined, next) => {
    const last = joined[joined.length - 1];
    if (last && next.from <= last.to) last.to = Math.max(last.to, next.to);
    else joined.push({ ...next });
    return joined;
  }, []);
}

/**
 * The frames of the masters that are on screen during a stretch of output frames.
 * @param to over `from`; what lies outside the cut is left out. @returns null where nothing of it is in the cut.
 */
export function toSpans({ from, to }: Stretch, { cut, starts, masters, rate }: Timeline): Spans | null {
  const spans: Spans = [];
  cut.forEach((range, index) => {
    const own = masters(range.master).rate;
    const start = starts[index] as number;
    const end = starts[index + 1] as number;
    if (to <= start || from >= end) return;
    const toFrame = (output: number) => range.in + shownFrame(output - start, own, rate);
    const first = from <= start ? range.in : toFrame(from);
    // Up to the frame that the first output frame after it would show.
    const last = to >= end ? range.out : Math.max(first + 1, toFrame(to));
    const span = { master: range.master, in: first, out: Math.min(range.out, last) };
    const before = spans[spans.length - 1];
    if (span.out <= span.in) return;
    if (before && before.master === span.master && before.out === span.in) before.out = span.out;
    else spans.push(span);
  });
  return spans.length > 0 ? spans : null;
}

/**
 * The part of spans between two shares of the time that they last, in whole frames of their masters.
 * @param from 0…1. @param to 0…1, from `from` on.
 */
export function toProgress(
  spans: readonly Range[],
  from: number,
  to: number,
  masters: MasterLengths,
): Range[] {
  const lasts = spans.map((span) => toSeconds(span.out - span.in, masters(span.master).rate));
  const whole = lasts.reduce((sum, seconds) => sum + seconds, 0);
  let before = 0;
  return spans.flatMap((span, i): Range[] => {
    const length = lasts[i] as number;
    const at = (share: number) => {
      const inside = Math.min(1, Math.max(0, (share * whole - before) / length));
      return span.in + Math.round(inside * (span.out - span.in));
    };
    const part = { ...span, in: at(from), out: at(to) };
    before += length;
    return part.out > part.in ? [part] : [];
  });
}

/** The first output frame that shows a frame of a master; null where the cut leaves it out. */
export function toOutputFrame(
  { master, frame }: { master: string; frame: number },
  { cut, starts, masters, rate }: Timeline,
): number | null {
  const index = cut.findIndex((range) => range.master === master && frame >= range.in && frame < range.out);
  const range = cut[index];
  if (!range) return null;
  const output = (starts[index] as number) + scaleFrames(frame - range.in, masters(master).rate, rate);
  return Math.min(output, (starts[index + 1] as number) - 1);
}

/** The frame of a master that is on screen at an output frame; what lies past the cut shows its last. */
export function toMasterFrame(
  output: number,
  { cut, starts, masters, rate }: Timeline,
): { master: string; frame: number } | null {
  const found = starts.findIndex((start, i) => output >= start && output < (starts[i + 1] ?? -1));
  const index = found < 0 ? cut.length - 1 : found;
  const range = cut[index];
  if (!range) return null;
  const frame =
    range.in + shownFrame(Math.max(0, output - (starts[index] as number)), masters(range.master).rate, rate);
  return { master: range.master, frame: Math.min(frame, range.out - 1) };
}
