import { chainOf, EMOJI } from './families';
import type { FontBook } from './font-index';
import { graphemesOf } from './graphemes';

/** Text in a row that one family draws. */
export interface FontRun {
  text: string;
  family: string;
}

/** Whether a grapheme is meant as a picture: it is one by itself, or asks to be (UTS #51, emoji presentation). */
const PICTURE = /\p{Emoji_Presentation}|\p{Emoji}\uFE0F|^\p{Regional_Indicator}/u;
/** What joins others and is never seen by itself. */
const UNSEEN = /[\p{Default_Ignorable_Code_Point}\p{Cc}]/u;
/** Characters that go with any family: they stay in the run that they stand in. */
const COMMON = /^[\p{Zs}\p{Cc}]+$/u;

/** What was found of a book's graphemes: each is looked for once in a family. */
const known = new WeakMap<FontBook, Map<string, string | null>>();

/** The family that draws a grapheme, or null where no font has all of it. */
function familyFor(grapheme: string, family: string, book: FontBook): string | null {
  const found = known.get(book) ?? new Map<string, string | null>();
  known.set(book, found);
  const key = `${family} ${grapheme}`;
  const before = found.get(key);
  if (before !== undefined) return before;
  const chain = PICTURE.test(grapheme) ? [EMOJI, ...chainOf(family)] : chainOf(family);
  const points = [...grapheme].filter((character) => !UNSEEN.test(character));
  const drawn = (name: string) => points.every((point) => book.has(name, point.codePointAt(0) as number));
  const first = chain.find(drawn) ?? null;
  found.set(key, first);
  return first;
}

/** A text in runs of one family each; what no font has stays in the chosen one. */
export function fontRuns(text: string, family: string, book: FontBook): FontRun[] {
  const runs: FontRun[] = [];
  for (const grapheme of graphemesOf(text)) {
    const last = runs[runs.length - 1];
    const own = last && COMMON.test(grapheme) ? last.family : (familyFor(grapheme, family, book) ?? family);
    if (last?.family === own) last.text += grapheme;
    else runs.push({ text: grapheme, family: own });
  }
  return runs;
}

/** The graphemes of a text that no font has, each once: they would come out as boxes. */
export function missingIn(text: string, family: string, book: FontBook): string[] {
  const lacks = (grapheme: string) => !COMMON.test(grapheme) && familyFor(grapheme, family, book) === null;
  return [...new Set(graphemesOf(text).filter(lacks))];
}
