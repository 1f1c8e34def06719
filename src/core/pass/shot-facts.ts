import { type FrameRate, rateValue } from '../time/frame-rate';
import { type Speech, spokenShare } from '../speech/speech';
import type { AnalysisResult } from './pass';

/** Facts of a shot, for finding the moment. */
export interface ShotFacts {
  seconds: number;
  /** Mean movement, in grey levels; null before the master was looked at. */
  motion: number | null;
  /** Greatest short-term loudness, LUFS; null where there is no sound. */
  loudness: number | null;
  /** The share of it in which something is heard, 0…1; null where there is no sound. */
  sounding: number | null;
  /** The share of it in which somebody speaks, 0…1; null before the master was listened to. */
  spoken: number | null;
}

/**
 * @param shot frames at the rate, half-open. @param pass null before the master was looked at, and `speech` before it
 * was listened to.
 */
export function shotFacts(
  { pass, speech }: { pass: AnalysisResult | null; speech: Speech | null },
  shot: { in: number; out: number },
  rate: FrameRate,
): ShotFacts {
  const [from, to] = [shot.in / rateValue(rate), shot.out / rateValue(rate)];
  const seconds = to - from;
  const part = <T>(values: readonly T[]) =>
    values.slice(Math.floor(from), Math.max(Math.floor(from) + 1, Math.ceil(to)));
  const moves = part(pass?.motion ?? []);
  const heard = part(pass?.sound?.shortTerm ?? []).flatMap((level) => (level === null ? [] : [level]));
  const silent = (pass?.sound?.pauses ?? []).reduce(
    (sum, pause) => sum + Math.max(0, Math.min(to, pause.to) - Math.max(from, pause.from)),
    0,
  );
  return {
    seconds,
    motion: moves.length > 0 ? moves.reduce((sum, value) => sum + value, 0) / moves.length : null,
    loudness: heard.length > 0 ? Math.max(...heard) : null,
    sounding: pass?.sound ? Math.max(0, 1 - silent / seconds) : null,
    spoken: speech && spokenShare(speech, from, to),
  };
}

/** Quieter than this is as good as silent, LUFS. */
const QUIET = -60;

/** The places of shots, the liveliest first: by movement and by loudness, each beside the other shots. */
export function sortByMovement(facts: readonly ShotFacts[]): number[] {
  const motion = ranks(facts.map((fact) => fact.motion ?? 0));
  const loudness = ranks(facts.map((fact) => fact.loudness ?? QUIET));
  const score = (i: number) => (motion[i] as number) + (loudness[i] as number);
  return facts.map((_, i) => i).sort((a, b) => score(b) - score(a));
}

/** The places of shots, those first in which the greatest part is spoken. */
export const sortBySpeech = (facts: readonly ShotFacts[]): number[] =>
  facts.map((_, i) => i).sort((a, b) => (facts[b]?.spoken ?? 0) - (facts[a]?.spoken ?? 0));

/** The rank of each value, 0 for the least; equal ones share a rank. */
function ranks(values: readonly number[]): number[] {
  const sorted = [...new Set(values)].sort((a, b) => a - b);
  return values.map((value) => sorted.indexOf(value) / Math.max(1, sorted.length - 1));
}
