import { z } from 'zod';
import { compareRates, type FrameRate, scaledFrames } from '../time/frame-rate';

/** Frames of one master, half-open: `in` is the first kept, `out` the first not kept. */
const rangeSchema = z
  .object({
    /** The master's id in its job. */
    master: z.string(),
    in: z.number().int().nonnegative(),
    out: z.number().int().positive(),
  })
  .refine((range) => range.out > range.in, { message: 'a range holds at least one frame' });
export type Range = z.infer<typeof rangeSchema>;

/** What is kept of the masters, in playing order. */
export const cutSchema = z.array(rangeSchema).min(1);
export type Cut = z.infer<typeof cutSchema>;

/** The rate and the length of each master that ranges may come from, by its id. */
export type MasterLengths = (master: string) => { rate: FrameRate; frames: number };

/** Frames in a range, at its own master's rate. */
export function rangeLength(range: Range): number {
  return range.out - range.in;
}

/** Frames that a range lasts at another rate: enough that its last frame shows. */
export function rangeFramesAt(range: Range, from: FrameRate, to: FrameRate): number {
  return scaledFrames(rangeLength(range), from, to);
}

/** Frames that a cut lasts at a canvas's rate. */
export function cutFrames(cut: Cut, masters: MasterLengths, rate: FrameRate): number {
  return cut.reduce((sum, range) => sum + rangeFramesAt(range, masters(range.master).rate, rate), 0);
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
export function trimmedTo(cut: Cut, frames: number, masters: MasterLengths, rate: FrameRate): Cut {
  let left = frames;
  const out: Cut = [];
  for (const range of cut) {
    const from = masters(range.master).rate;
    const kept = Math.min(left, rangeFramesAt(range, from, rate));
    left -= kept;
    if (kept <= 0) break;
    // The most master frames that still last no longer than what is left.
    let length = Math.min(rangeLength(range), scaledFrames(kept, rate, from));
    while (length > 1 && scaledFrames(length, from, rate) > kept) length -= 1;
    // One frame of a slower master may last too long already; a cut keeps at least one.
    if (out.length > 0 && scaledFrames(length, from, rate) > kept) break;
    out.push({ ...range, out: range.in + length });
  }
  return out;
}

/** The first range that holds a master's frame, or −1. */
export function rangeAt(cut: Cut, master: string, frame: number): number {
  return cut.findIndex((range) => range.master === master && frame >= range.in && frame < range.out);
}
