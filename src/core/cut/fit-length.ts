import { type Cut, type Range, rangeLength } from './cut';
import { joinRanges } from './range-edits';

/** A whole shot of the cut, with what speaks for it. */
export interface Candidate extends Range {
  /** Mean movement, in grey levels. */
  motion: number;
  /** Loudness, LUFS; null where there is no sound. */
  loudness: number | null;
}

/** Request for a fit. All frames at one rate. */
export interface FitRequest {
  /** Shots in playing order. */
  shots: readonly Candidate[];
  /** Frames that the clip may last at most. */
  frames: number;
  keepFirst: boolean;
  keepLast: boolean;
  /** Frames of each master in which the sound pauses, half-open. */
  pauses: readonly Range[];
}

/** Proposal for a cut of the wanted length. */
export interface Proposal {
  cut: Cut;
  frames: number;
  /** Criterion that it favours. */
  by: 'movement' | 'sound' | 'even';
}

/** A shot that is shortened keeps at least this share of itself. */
const MIN_SHARE = 0.35;
/** A pause this near, as a share of the shot, is where a shot is shortened. */
const PAUSE_REACH = 0.25;

/**
 * Up to three ways to a length from whole shots: by movement, by sound, and spread evenly over the cut. What is
 * missing to the length is one shot that is shortened, at a pause where one is near.
 *
 * @returns different proposals only, none longer than asked; empty when nothing is to be left out.
 */
export function proposals(request: FitRequest): Proposal[] {
  const total = request.shots.reduce((sum, shot) => sum + rangeLength(shot), 0);
  if (request.shots.length === 0 || total <= request.frames) return [];
  const scores: Record<Proposal['by'], number[]> = {
    movement: toRanks(request.shots.map((shot) => shot.motion)),
    sound: toRanks(request.shots.map((shot) => shot.loudness ?? -70)),
    even: evenScores(request.shots),
  };
  const found: Proposal[] = [];
  for (const by of ['movement', 'sound', 'even'] as const) {
    const cut = chosen(request, scores[by]);
    if (cut.length === 0) continue;
    const frames = cut.reduce((sum, range) => sum + rangeLength(range), 0);
    const text = JSON.stringify(cut);
    if (!found.some((proposal) => JSON.stringify(proposal.cut) === text)) found.push({ cut, frames, by });
  }
  return found;
}

/** 0…1 by rank, so that figures of different kinds weigh alike. */
function toRanks(values: readonly number[]): number[] {
  const sorted = [...values].sort((a, b) => a - b);
  return values.map((value) => (sorted.length < 2 ? 1 : sorted.indexOf(value) / (sorted.length - 1)));
}

/** Shots spread over the cut come first: the ends, the middle, the quarters. */
function evenScores(shots: readonly Candidate[]): number[] {
  const scores = shots.map(() => 0);
  const last = shots.length - 1;
  let score = 1;
  for (let step = last; step >= 1; step = Math.floor(step / 2)) {
    for (let i = 0; i <= last; i += step) if (scores[i] === 0) scores[i] = score;
    score *= 0.7;
  }
  if (last === 0) scores[0] = 1;
  return scores.map((value) => value || score);
}

/** The shots that score best for their length, in playing order, the last that does not fit whole shortened. */
function chosen({ shots, frames, keepFirst, keepLast, pauses }: FitRequest, scores: readonly number[]): Cut {
  const must = new Set<number>();
  if (keepFirst) must.add(0);
  if (keepLast) must.add(shots.length - 1);
  const byScore = (a: number, b: number) => (scores[b] ?? 0) - (scores[a] ?? 0) || a - b;
  const free = shots.map((_, i) => i).filter((i) => !must.has(i));
  const order = [...[...must].sort((a, b) => a - b), ...free.sort(byScore)];
  const taken = new Map<number, Range>();
  let left = frames;
  for (const i of order) {
    const { master, in: first, out } = shots[i] as Candidate;
    const range = { master, in: first, out };
    const length = rangeLength(range);
    // The first moment leaves room for the last one.
    const kept = i === 0 && keepFirst && keepLast && shots.length > 1;
    const room = kept
      ? Math.min(left, Math.max(left - rangeLength(getLast(shots)), Math.ceil(left / 2)))
      : left;
    if (length <= room) {
      taken.set(i, range);
      left -= length;
    } else if (room > 0 && (must.has(i) || room >= length * MIN_SHARE)) {
      const fromEnd = i === shots.length - 1 && keepLast && !(i === 0 && keepFirst);
      const short = shortenRange(range, room, pauses, fromEnd);
      taken.set(i, short);
      left -= rangeLength(short);
      if (!must.has(i)) break;
    }
  }
  return joinRanges([...taken.entries()].sort(([a], [b]) => a - b).map(([, range]) => range));
}

const getLast = (shots: readonly Candidate[]): Candidate => shots[shots.length - 1] as Candidate;

/**
 * A range shortened to at most `frames`: to a pause near where that falls, else to the frame.
 * @param fromEnd whether its end stays and its beginning goes.
 */
function shortenRange(range: Range, frames: number, pauses: readonly Range[], fromEnd: boolean): Range {
  const reach = Math.round(rangeLength(range) * PAUSE_REACH);
  const own = pauses.filter((pause) => pause.master === range.master);
  if (fromEnd) {
    const first = range.out - frames;
    const pause = own.find((quiet) => quiet.out > first && quiet.in < first + reach && quiet.out < range.out);
    // The moment a pause ends, sound begins: the shot starts there.
    return { ...range, in: pause ? Math.max(first, Math.min(pause.out, range.out - 1)) : first };
  }
  const last = range.in + frames;
  const pause = [...own]
    .reverse()
    .find((quiet) => quiet.in < last && quiet.in > Math.max(range.in, last - reach));
  return { ...range, out: pause ? Math.min(last, Math.max(pause.in, range.in + 1)) : last };
}
