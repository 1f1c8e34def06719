import { z } from 'zod';
import { frameCount, frameIndex } from '../figures/bounded';
import { compareRates, type FrameRate, scaleFrames } from '../time/frame-rate';

/** Frames of one master, half-open: `in` is the first kept, `out` the first not kept. */
export const rangeSchema = z
  .object({
    /** The master's id in its job. */
    master: z.string(),
    in: frameIndex(),
    out: frameCount(),
  })
  .refine((range) => range.out > range.in, { message: 'a range holds at least one frame' });
export type Range = z.infer<typeof rangeSchema>;

/** Cut: ranges of the masters in playing order. */
export const cutSchema = z.array(rangeSchema).min(1);
export type Cut = z.infer<typeof cutSchema>;

/** The rate and the length of each master that ranges may come from, by its id. */
export type MasterLengths = (master: string) => { rate: FrameRate; frames: number };

/** Frames in a range, at its own master's rate. */
export function rangeLength(range: Range): number {
  return range.out - range.in;
}

/**
 * The first output frame of each range, and after them the frames of the whole cut, at a canvas's rate. What does not
 * fit a frame is rounded up over the cut, not in each range: ten ranges are no longer than one of their length.
 */
export function rangeStarts(cut: Cut, masters: MasterLengths, rate: FrameRate): number[] {
  const starts = [0];
  // Frames so far of each rate: sums of one rate stay whole.
  const before = new Map<string, { rate: FrameRate; frames: number }>();
  for (const range of cut) {
    const own = masters(range.master).rate;
    const key = `${own.num}/${own.den}`;
    const frames = (before.get(key)?.frames ?? 0) + rangeLength(range);
    before.set(key, { rate: own, frames });
    starts.push(before.size === 1 ? scaleFrames(frames, own, rate) : mixedFrames([...before.values()], rate));
  }
  return starts;
}

/** Frames that runs of several rates last together. */
function mixedFrames(runs: readonly { rate: FrameRate; frames: number }[], rate: FrameRate): number {
  const exact = runs.reduce(
    (sum, run) => sum + (run.frames * run.rate.den * rate.num) / (run.rate.num * rate.den),
    0,
  );
  return Math.ceil(exact - 1e-6);
}

/** The lengths of some masters. @throws RangeError for one that is not among them. */
export const toMasterLengths =
  (masters: readonly (ReturnType<MasterLengths> & { id: string })[]): MasterLengths =>
  (id) => {
    const master = masters.find((master) => master.id === id);
    if (!master) throw new RangeError(`the clip has no master ${id}`);
    return master;
  };

/** Frames that a cut lasts at a canvas's rate. */
export function cutFrames(cut: Cut, masters: MasterLengths, rate: FrameRate): number {
  return rangeStarts(cut, masters, rate)[cut.length] ?? 0;
}

/**
 * The slowest rate among a cut's masters. Frames of the masters that last so long at this rate last no longer at
 * their own.
 */
export function slowestRate(cut: Cut, masters: MasterLengths): FrameRate {
  const rates = cut.map((range) => masters(range.master).rate);
  return rates.reduce((slow, rate) => (compareRates(rate, slow) < 0 ? rate : slow));
}

/** A cut shortened from its end to at most `frames` at the canvas's rate. @param frames 1 or more. */
export function trimCut(cut: Cut, frames: number, masters: MasterLengths, rate: FrameRate): Cut {
  const out: Cut = [];
  for (const range of cut) {
    const lasts = (length: number) =>
      cutFrames([...out, { ...range, out: range.in + length }], masters, rate);
    // The most frames of the range with which the cut still lasts no longer.
    const most = rangeLength(range);
    let length = Math.min(most, scaleFrames(frames, rate, masters(range.master).rate));
    if (lasts(most) <= frames) length = most;
    while (length > 1 && lasts(length) > frames) {
      length -= Math.max(1, scaleFrames(lasts(length) - frames, rate, masters(range.master).rate) - 1);
      length = Math.max(1, length);
    }
    // A cut keeps at least one frame, however long that lasts.
    if (out.length > 0 && lasts(length) > frames) break;
    out.push({ ...range, out: range.in + length });
    if (length < most) break;
  }
  return out;
}

/** The first range that holds a master's frame, or −1. */
export function findRangeIndex(cut: Cut, master: string, frame: number): number {
  return cut.findIndex((range) => range.master === master && frame >= range.in && frame < range.out);
}
