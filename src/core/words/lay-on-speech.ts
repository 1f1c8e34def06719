import { sum } from '../figures/sum';
import type { FrameRate } from '../time/frame-rate';
import { rateValue } from '../time/frame-rate';
import type { ReadingLimits } from './reading-limits';
import { syllablesOf, wordsOf } from './speech-rhythm';
import type { Stretch } from './spans';

/** One text may lie on so many stretches of speech, and so many texts on one. */
const MOST_TOGETHER = 6;
/** What it costs that a text and a stretch do not go together one to one, and that a stretch has no text. */
const APART = 0.12;
/** And for each second of silence inside one text. */
const SILENCE = 0.3;
const UNUSED = 1.5;

/** Texts in a row that lie on stretches in a row: either is one. */
interface Match {
  texts: number;
  spans: number;
}

const weightOf = (text: string): number =>
  Math.max(
    0.5,
    wordsOf(text).reduce((sum, { from, to }) => sum + syllablesOf(text.slice(from, to)), 0),
  );

/**
 * Lays texts on speech: which text goes with which stretch is found so that all are spoken as evenly fast as can be, a
 * text on one stretch or on several, or several on one, shared by their syllables.
 * @param spoken stretches of output frames at which somebody speaks; the whole clip where none is known.
 * @param whole output frames of the clip. @returns one stretch a text, in order; none over the next.
 */
export function laidOnSpeech(
  texts: readonly string[],
  spoken: readonly Stretch[],
  whole: number,
  limits: ReadingLimits,
  rate: FrameRate,
): Stretch[] {
  if (texts.length === 0) return [];
  const speech = spoken.length > 0 ? spoken : [{ from: 0, to: whole }];
  const weights = texts.map(weightOf);
  const places: Stretch[] = [];
  let [text, span] = [0, 0];
  for (const match of matches(weights, speech, rate)) {
    const own = speech.slice(span, span + match.spans);
    if (match.texts > 0) places.push(...shared(weights.slice(text, text + match.texts), own));
    text += match.texts;
    span += match.spans;
  }
  return withinLimits(places, whole, limits, rate);
}

/** Which texts go with which stretches: the way that costs least, found stretch by stretch. */
function matches(weights: readonly number[], speech: readonly Stretch[], rate: FrameRate): Match[] {
  /** Seconds between stretches in a row. */
  const silence = (from: number, to: number) =>
    sum(speech.slice(from + 1, to).map((span, i) => span.from - (speech[from + i] as Stretch).to)) /
    rateValue(rate);
  const lengths = speech.map(({ from, to }) => to - from);
  const pace = sum(lengths) / sum(weights);
  // Far more texts than stretches, as where the whole clip is one: all go on what there is.
  if (weights.length > MOST_TOGETHER * speech.length)
    return [{ texts: weights.length, spans: speech.length }];
  const cost: number[][] = Array.from({ length: weights.length + 1 }, () => []);
  const way: Match[][] = Array.from({ length: weights.length + 1 }, () => []);
  (cost[0] as number[])[0] = 0;
  for (let i = 0; i <= weights.length; i++) {
    for (let j = 0; j <= speech.length; j++) {
      if (i === 0 && j === 0) continue;
      let best = Infinity;
      const consider = (texts: number, spans: number, price: number) => {
        const before = cost[i - texts]?.[j - spans] ?? Infinity;
        if (before + price >= best) return;
        best = before + price;
        (way[i] as Match[])[j] = { texts, spans };
      };
      if (j > 0) consider(0, 1, UNUSED);
      for (let n = 1; n <= MOST_TOGETHER; n++) {
        if (i >= n && j >= 1) {
          consider(
            n,
            1,
            uneven(sum(weights.slice(i - n, i)) * pace, lengths[j - 1] as number) + APART * (n - 1),
          );
        }
        if (n > 1 && i >= 1 && j >= n) {
          consider(
            1,
            n,
            uneven((weights[i - 1] as number) * pace, sum(lengths.slice(j - n, j))) +
              APART * (n - 1) +
              SILENCE * silence(j - n, j),
          );
        }
      }
      (cost[i] as number[])[j] = best;
    }
  }
  const found: Match[] = [];
  let [i, j] = [weights.length, speech.length];
  while (i > 0 || j > 0) {
    const match = way[i]?.[j];
    // Texts for which there is no way lie on what is left, all together.
    if (!match) return [{ texts: i, spans: j }, ...found];
    found.unshift(match);
    i -= match.texts;
    j -= match.spans;
  }
  return found;
}

/** How far a length is from what was expected, as a ratio either way; squared, so that one large lie costs most. */
const uneven = (expected: number, found: number): number => Math.log(found / expected) ** 2;

/** Texts on stretches in a row, each with as much of them as it has syllables. */
function shared(weights: readonly number[], speech: readonly Stretch[]): Stretch[] {
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
