import { z } from 'zod';

/** Frames of the master, half-open: `in` is the first kept, `out` the first not kept. */
export const rangeSchema = z
  .object({ in: z.number().int().nonnegative(), out: z.number().int().positive() })
  .refine((range) => range.out > range.in, { message: 'a range holds at least one frame' });
export type Range = z.infer<typeof rangeSchema>;

/** What is kept of the master, in order. */
export const cutSchema = z.array(rangeSchema).min(1);
export type Cut = z.infer<typeof cutSchema>;

/** Frames in a cut. */
export function cutLength(cut: Cut): number {
  return cut.reduce((sum, range) => sum + range.out - range.in, 0);
}

/** First frame of a cut and the frame after its last, in the master. */
export function cutSpan(cut: Cut): Range {
  const [first, last] = [cut[0], cut[cut.length - 1]];
  if (!first || !last) throw new RangeError('a cut holds at least one range');
  return { in: first.in, out: last.out };
}

/** A cut with its in point moved to a frame; an in point at or after the out point keeps one frame. */
export function withIn(cut: Cut, frame: number): Cut {
  return cut.map((range, i) =>
    i === 0 ? { ...range, in: Math.max(0, Math.min(frame, range.out - 1)) } : range,
  );
}

/** A cut whose last kept frame is `frame`; one before the in point keeps one frame. */
export function withOut(cut: Cut, lastFrame: number, masterFrames: number): Cut {
  return cut.map((range, i) =>
    i === cut.length - 1
      ? { ...range, out: Math.min(masterFrames, Math.max(lastFrame + 1, range.in + 1)) }
      : range,
  );
}

/** A cut shortened from its end to at most `frames`. @param frames 1 or more. */
export function trimmedTo(cut: Cut, frames: number): Cut {
  let left = frames;
  return cut.flatMap((range) => {
    const kept = Math.min(left, range.out - range.in);
    left -= kept;
    return kept > 0 ? [{ in: range.in, out: range.in + kept }] : [];
  });
}
