import { sum } from '../figures/sum';
import type { FrameRate } from '../time/frame-rate';
import { rateValue } from '../time/frame-rate';
import type { ReadingLimits } from './reading-limits';
import { countSyllables, locateWords } from './speech-rhythm';
import type { Stretch } from './spans';

/** Maximum number of stretches of speech for one text, and of texts for one stretch. */
const MAX_TOGETHER = 6;
/** Cost of a text and a stretch that do not go together one to one, and of a stretch without text. */
const APART = 0.12;
/** And for each second of silence inside one text. */
const SILENCE = 0.3;
const UNUSED = 1.5;

/** Texts in a row that lie on stretches in a row: either is one. */
interface Match {
  texts: number;
  spans: number;
}

const computeWeight = (text: string): number =>
  Math.max(
    0.5,
    locateWords(text).reduce((sum, { from, to }) => sum + countSyllables(text.slice(from, to)), 0),
  );

/**
 * Lays texts on speech: which text goes with which stretch is found so that all are spoken as evenly fast as can be, a
 * text on one stretch or on several, or several on one, shared by their syllables.
 * @param spoken stretches of output frames at which somebody speaks; the whole clip where none is known.
 * @param whole output frames of the clip. @param onProgress is told how many texts were looked at. @returns one stretch a text, in order; none over the next.
 */
export function layOnSpeech(
  texts: readonly string[],
  spoken: readonly Stretch[],
  whole: number,
  limits: ReadingLimits,
  rate: FrameRate,
  onProgress?: (done: number, total: number) => void,
): Stretch[] {
  if (texts.length === 0) return [];
  const speech = spoken.length > 0 ? spoken : [{ from: 0, to: whole }];
  const weights = texts.map(computeWeight);
  const places: Stretch[] = [];
  let [text, span] = [0, 0];
  for (const match of matches(weights, speech, rate, onProgress)) {
    const own = speech.slice(span, span + match.spans);
    if (match.texts > 0) places.push(...shareSpeech(weights.slice(text, text + match.texts), own));
    text += match.texts;
    span += match.spans;
  }
  return withinLimits(places, whole, limits, rate);
}

/** Pairs of a text and a stretch are looked at this near to where even speech would bring them together. */
const REACH_STRETCHES = 250;
const REACH_SHARE = 0.15;

/** Ways to go on, by number: up to six texts on one stretch, one text on two to six, and a stretch without a text. */
const WAYS: readonly Match[] = [
  ...Array.from({ length: MAX_TOGETHER }, (_, n) => ({ texts: n + 1, spans: 1 })),
  ...Array.from({ length: MAX_TOGETHER - 1 }, (_, n) => ({ texts: 1, spans: n + 2 })),
  { texts: 0, spans: 1 },
];
const NO_WAY = 255;
/** Texts between two reports of progress. */
const TOLD_EVERY = 50;

/** Sums of the first values: `sums[n]` of the first n. */
function prefixSums(values: readonly number[]): Float64Array {
  const sums = new Float64Array(values.length + 1);
  values.forEach((value, i) => (sums[i + 1] = (sums[i] as number) + value));
  return sums;
}

/** Logarithms of the sums of so many values that end at each place: `logs[n][i]` of the n before i. */
const logsOfSums = (sums: Float64Array, factor: number): Float64Array[] =>
  Array.from({ length: MAX_TOGETHER + 1 }, (_, n) =>
    sums.map((sum, i) => (i < n || n === 0 ? 0 : Math.log((sum - (sums[i - n] as number)) * factor))),
  );

/** Matches texts with stretches: the path of minimum cost, found stretch by stretch. */
function matches(
  weights: readonly number[],
  speech: readonly Stretch[],
  rate: FrameRate,
  onProgress?: (done: number, total: number) => void,
): Match[] {
  const [texts, spans] = [weights.length, speech.length];
  // Far more texts than stretches, as where the whole clip is one: all go on what there is.
  if (texts > MAX_TOGETHER * spans) return [{ texts, spans }];
  const [weight, length] = [prefixSums(weights), prefixSums(speech.map(({ from, to }) => to - from))];
  // Seconds of silence before each stretch.
  const silence = prefixSums(
    speech.map(({ from }, i) => (i === 0 ? 0 : (from - (speech[i - 1] as Stretch).to) / rateValue(rate))),
  );
  const pace = (length[spans] as number) / (weight[texts] as number);
  const [said, heard] = [logsOfSums(weight, pace), logsOfSums(length, 1)];
  const reach = Math.max(REACH_STRETCHES, Math.ceil(REACH_SHARE * spans));
  const width = spans + 1;
  const ways = new Uint8Array((texts + 1) * width).fill(NO_WAY);
  // Costs of the last rows alone: no way goes further back.
  const rows = Array.from({ length: MAX_TOGETHER + 1 }, () => new Float64Array(width));
  let even = 0;
  for (let i = 0; i <= texts; i++) {
    if (i % TOLD_EVERY === 0) onProgress?.(i, texts);
    const row = (rows[i % rows.length] as Float64Array).fill(Infinity);
    // Where as much is spoken as has been said so far.
    while (even < spans && (length[even] as number) < (weight[i] as number) * pace) even += 1;
    const last = i === texts ? spans : Math.min(spans, even + reach);
    for (let j = i === 0 ? 0 : Math.max(0, even - reach); j <= last; j++) {
      let best = i === 0 && j === 0 ? 0 : Infinity;
      let way = NO_WAY;
      if (j > 0 && (row[j - 1] as number) + UNUSED < best) {
        best = (row[j - 1] as number) + UNUSED;
        way = WAYS.length - 1;
      }
      for (let n = 1; n <= MAX_TOGETHER; n++) {
        if (i >= n && j >= 1) {
          const off = (heard[1]?.[j] as number) - (said[n]?.[i] as number);
          const price = (rows[(i - n) % rows.length]?.[j - 1] as number) + off * off + APART * (n - 1);
          if (price < best) [best, way] = [price, n - 1];
        }
        if (n > 1 && i >= 1 && j >= n) {
          const off = (heard[n]?.[j] as number) - (said[1]?.[i] as number);
          const quiet = (silence[j] as number) - (silence[j - n + 1] as number);
          const before = rows[(i - 1) % rows.length]?.[j - n] as number;
          const price = before + off * off + APART * (n - 1) + SILENCE * quiet;
          if (price < best) [best, way] = [price, MAX_TOGETHER + n - 2];
        }
      }
      row[j] = best;
      ways[i * width + j] = way;
    }
  }
  const found: Match[] = [];
  let [i, j] = [texts, spans];
  while (i > 0 || j > 0) {
    const match = WAYS[ways[i * width + j] as number];
    // Texts for which there is no way lie on what is left, all together.
    if (!match) return [{ texts: i, spans: j }, ...found.reverse()];
    found.push(match);
    i -= match.texts;
    j -= match.spans;
  }
  return found.reverse();
}

/** Texts on stretches in a row, each with as much of them as it has syllables. */
function shareSpeech(weights: readonly number[], speech: readonly Stretch[]): Stretch[] {
  const length = sum(speech.map(({ from, to }) => to - from));
  const all = sum(weights);
  let said = 0;
  return weights.map((weight) => {
    const from = Math.round(atSpoken(speech, (said / all) * length));
    said += weight;
    return { from, to: Math.round(atSpoken(speech, (said / all) * length, true)) };
  });
}

/** The frame at which so many frames of speech have passed. @param ends whether it ends there rather than begins. */
function atSpoken(speech: readonly Stretch[], frames: number, ends = false): number {
  let left = frames;
  for (const { from, to } of speech) {
    if (left < to - from - 1e-6 || (ends && left <= to - from + 1e-6)) return from + left;
    left -= to - from;
  }
  return speech[speech.length - 1]?.to ?? 0;
}

/** Places in order, none over the next, each as long as the limits let it be where there is room. */
function withinLimits(
  places: readonly Stretch[],
  whole: number,
  limits: ReadingLimits,
  rate: FrameRate,
): Stretch[] {
  const [shortest, longest] = [limits.shortest, limits.longest].map((seconds) =>
    Math.round(seconds * rateValue(rate)),
  ) as [number, number];
  const starts: number[] = [];
  for (const { from } of places) starts.push(Math.max(from, (starts[starts.length - 1] ?? -1) + 1));
  return starts.map((from, i) => {
    const next = starts[i + 1] ?? Math.max(whole, from + 1);
    const end = Math.max((places[i] as Stretch).to, from + shortest);
    return { from, to: Math.max(from + 1, Math.min(next, from + longest, end)) };
  });
}
