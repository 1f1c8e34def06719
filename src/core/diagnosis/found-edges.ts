import type { Repairs } from '../master/repairs';
import type { Source } from '../master/source';
import type { FoundShot, AnalysisResult } from '../pass/pass';
import { uprightRect } from '../picture/live-area';
import type { PictureRect } from '../picture/size';
import { type FrameRate, scaleFrames } from '../time/frame-rate';

/** Edges that were found with at least this confidence are taken by themselves; others are asked about. */
export const SURE = 0.9;
/** Edges this near to each other, 0…1 of the picture, are the same: a fifth of a sample of 1920. */
const SAME = 1e-4;

/** Tells whether an area reaches past another at any edge. */
export const isReachingPast = (area: PictureRect, other: PictureRect): boolean =>
  area.x < other.x - SAME ||
  area.y < other.y - SAME ||
  area.x + area.width > other.x + other.width + SAME ||
  area.y + area.height > other.y + other.height + SAME;

/** The live area that was found over a whole master, 0…1 of the upright picture; null where no bars were. */
export const listFoundInMaster = (
  pass: AnalysisResult,
  source: Pick<Source, 'rotation' | 'flip'>,
): PictureRect | null => pass.live && uprightRect(pass.live, source);

/** A master's repairs with edges taken that were found for sure, or null where there is nothing to take by itself. */
export function sureEdges(pass: AnalysisResult, source: Source, repairs: Repairs): Repairs | null {
  const found = listFoundInMaster(pass, source);
  return found && pass.liveConfidence >= SURE && repairs.live === null ? { ...repairs, live: found } : null;
}

/**
 * The live area that shots were found to have of their own, over some frames of a master; null where they have none.
 *
 * @param span half-open, in frames of the source. @param rate of the file, which the pass counted at.
 */
export function listFoundInShots(
  pass: AnalysisResult,
  source: Source,
  rate: FrameRate,
  span: { in: number; out: number },
): PictureRect | null {
  const start = (shot: FoundShot | undefined) =>
    shot ? scaleFrames(shot.frame, rate, source.rate) : Infinity;
  return pass.shots.reduce<PictureRect | null>((area, shot, i) => {
    if (!shot.live || start(shot) >= span.out || start(pass.shots[i + 1]) <= span.in) return area;
    const own = uprightRect(shot.live, source);
    return area ? computeOverlap(area, own) : own;
  }, null);
}

function computeOverlap(a: PictureRect, b: PictureRect): PictureRect {
  const [x, y] = [Math.max(a.x, b.x), Math.max(a.y, b.y)];
  const right = Math.min(a.x + a.width, b.x + b.width);
  const bottom = Math.min(a.y + a.height, b.y + b.height);
  return { x, y, width: right - x, height: bottom - y };
}
