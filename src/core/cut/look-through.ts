import type { Shot } from './shot';
import type { Range } from './cut';

/** A piece of a shot to look at. */
export interface LookPiece extends Range {
  shot: string;
}

/**
 * Lists the stretches to play to judge a framing: of every shot its first, its middle and its last stretch,
 * or all of a shot that is no longer than the three together.
 *
 * @param shots in playing order, cut to what the clip keeps. @param framesOf one stretch of a master, in frames.
 */
export function lookThrough(
  shots: readonly Pick<Shot, 'id' | 'master' | 'in' | 'out'>[],
  framesOf: (master: string) => number,
): LookPiece[] {
  return shots.flatMap(({ id, master, in: first, out }) => {
    const frames = framesOf(master);
    const piece = (from: number, to: number): LookPiece => ({ master, in: from, out: to, shot: id });
    if (out - first <= 3 * frames) return [piece(first, out)];
    const middle = Math.floor((first + out - frames) / 2);
    return [piece(first, first + frames), piece(middle, middle + frames), piece(out - frames, out)];
  });
}

/** Lists the parts of each shot that a cut keeps, in playing order. */
export function listKeptShots(
  cut: readonly Range[],
  shots: readonly Shot[],
): Pick<Shot, 'id' | 'master' | 'in' | 'out'>[] {
  return cut.flatMap((range) =>
    shots
      .filter((shot) => shot.master === range.master)
      .map(({ id, master, in: first, out }) => ({
        id,
        master,
        in: Math.max(first, range.in),
        out: Math.min(out, range.out),
      }))
      .filter((shot) => shot.out > shot.in),
  );
}
