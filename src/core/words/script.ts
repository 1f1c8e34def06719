import { z } from 'zod';
import { frameIndex } from '../figures/bounded';
import type { FrameRate } from '../time/frame-rate';
import { layOnSpeech } from './lay-on-speech';
import { type Cue, MAX_CUE_TEXT } from './captions';
import { freshCueIds } from './cue-list';
import { splitGraphemes } from './graphemes';
import { splitIntoPieces } from './pieces';
import type { ReadingLimits } from './reading-limits';
import { toSpans, type Stretch, type Timeline } from './spans';

/** Where sentences and their parts end: a cue ends there rather than elsewhere. */
const SENTENCE = /[.!?…。！？؟।]["'»”’)\]]*\s*$/u;
const CLAUSE = /[,;:–—、，؛]["'»”’)\]]*\s*$/u;

/** How dear it is to end a line, or a cue, after a piece of text: nothing at the end of a sentence. */
const endCost = (text: string): number => (SENTENCE.test(text) ? 0 : CLAUSE.test(text) ? 0.25 : 1);

/**
 * A script cut into cues: as many words as the limits let stand, ended at sentences and clauses rather than inside
 * them, with lines of about the same length. A line of the script is never joined with the next.
 */
export function scriptTexts(script: string, limits: ReadingLimits): string[] {
  return script
    .split(/\r\n|\r|\n/)
    .map((line) => line.replace(/\s+/gu, ' ').trim())
    .filter((line) => line !== '')
    .flatMap((line) => cuesOfLine(line, limits));
}

/** A piece of text that no line breaks inside, and its graphemes with and without the space after it. */
interface MeasuredText {
  text: string;
  full: number;
  bare: number;
}

const measureText = (text: string): MeasuredText => ({
  text,
  full: splitGraphemes(text).length,
  bare: splitGraphemes(text.trimEnd()).length,
});

/** Pieces of one line of a script in cues, such that what their ends cost together is least. */
function cuesOfLine(line: string, limits: ReadingLimits): string[] {
  const pieces = splitIntoPieces(line)
    .flatMap(({ text }) => splitLongText(text, limits.characters))
    .map(measureText);
  const ends = pieces.map(({ text }) => endCost(text));
  const most = limits.characters * limits.lines;
  // The least that all up to each piece costs, and where its last cue begins.
  const best: { cost: number; from: number }[] = [{ cost: 0, from: 0 }];
  for (let to = 1; to <= pieces.length; to++) {
    let found = { cost: Infinity, from: to - 1 };
    let length = (pieces[to - 1] as MeasuredText).bare;
    let units = 0;
    for (let from = to - 1; from >= 0; from--) {
      const piece = pieces[from] as MeasuredText;
      if (from < to - 1) length += piece.full;
      units += piece.text.length;
      const alone = from === to - 1;
      if (
        !alone &&
        (units > MAX_CUE_TEXT || !linesWithin(pieces.slice(from, to), limits.characters, limits.lines))
      ) {
        break;
      }
      // Each cue costs something, an end inside a sentence more, and one that stays half empty a little.
      const cost =
        (best[from] as { cost: number }).cost + 1 + 2 * (ends[to - 1] as number) + (1 - length / most) ** 2;
      if (cost < found.cost) found = { cost, from };
    }
    best[to] = found;
  }
  const texts: string[] = [];
  for (let to = pieces.length; to > 0; to = (best[to] as { from: number }).from) {
    const own = pieces.slice((best[to] as { from: number }).from, to);
    texts.unshift(evenLines(own, limits) ?? joinPieces(own));
  }
  return texts;
}

const joinPieces = (pieces: readonly MeasuredText[]): string =>
  pieces
    .map(({ text }) => text)
    .join('')
    .trim();

/** A piece that is too wide for a line, in parts. */
function splitLongText(text: string, most: number): string[] {
  const letters = splitGraphemes(text);
  if (letters.length <= most) return [text];
  const parts: string[] = [];
  for (let i = 0; i < letters.length; i += most) parts.push(letters.slice(i, i + most).join(''));
  return parts;
}

/** Pieces in at most so many lines of at most so many graphemes, filled one after another; null where they need more. */
function linesWithin(
  pieces: readonly MeasuredText[],
  characters: number,
  lines: number,
): MeasuredText[][] | null {
  const found: MeasuredText[][] = [];
  let length = Infinity;
  for (const piece of pieces) {
    if (piece.bare > characters) return null;
    if (length + piece.bare > characters) {
      if (found.length === lines) return null;
      found.push([]);
      length = 0;
    }
    found[found.length - 1]?.push(piece);
    length += piece.full;
  }
  return found;
}

/** A text in lines within the limits, as even as they can be; null where it takes more. */
export const breakLines = (text: string, limits: ReadingLimits): string | null =>
  evenLines(
    splitIntoPieces(text).map((piece) => measureText(piece.text)),
    limits,
  );

/** The narrowest lines of which there are no more than there must be. */
function evenLines(pieces: readonly MeasuredText[], { characters, lines }: ReadingLimits): string | null {
  let best = linesWithin(pieces, characters, lines);
  if (!best) return null;
  const count = best.length;
  for (let most = characters - 1; most > 0 && count > 1; most--) {
    const narrower = linesWithin(pieces, most, count);
    if (!narrower) break;
    best = narrower;
  }
  return best.map(joinPieces).join('\n');
}

/** A script to lay on the speech of a clip. */
export interface ScriptRequest {
  script: string;
  /** Output frames in which somebody speaks. */
  spoken: readonly Stretch[];
  /** Output frames of the clip. */
  whole: number;
  limits: ReadingLimits;
  rate: FrameRate;
}

/** Texts of a script, and the output frames of each. */
export const laidScriptSchema = z.object({
  texts: z.array(z.string()),
  places: z.array(z.object({ from: frameIndex(), to: frameIndex() })),
});
export type LaidScript = z.infer<typeof laidScriptSchema>;

/** A script in texts within the limits, laid on speech. @param onProgress is told how many texts were looked at. */
export function layScript(
  { script, spoken, whole, limits, rate }: ScriptRequest,
  onProgress?: (done: number, total: number) => void,
): LaidScript {
  const texts = scriptTexts(script, limits);
  return { texts, places: layOnSpeech(texts, spoken, whole, limits, rate, onProgress) };
}

/** Cues of a script that was laid on the speech of a clip. */
export function toScriptCues({ texts, places }: LaidScript, timeline: Timeline): Cue[] {
  const ids = freshCueIds([], texts.length);
  return texts.flatMap((text, i): Cue[] => {
    const spans = toSpans(places[i] as Stretch, timeline);
    return spans ? [{ id: ids[i] as string, text, spans }] : [];
  });
}
