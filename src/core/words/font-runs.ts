import { memoize } from '../figures/memoize';
import { listFallbackFamilies, EMOJI } from './families';
import type { FontBook } from './font-index';
import { splitGraphemes } from './graphemes';

/** Text in a row that one family draws. */
export interface FontRun {
  text: string;
  family: string;
}

/**
 * Graphemes that are meant as pictures: one that is so by itself, or asks to be (UTS #51, emoji
 * presentation).
 */
const PICTURE = /\p{Emoji_Presentation}|\p{Emoji}\uFE0F|^\p{Regional_Indicator}/u;
/** Characters that join others and are never seen by themselves. */
const UNSEEN = /[\p{Default_Ignorable_Code_Point}\p{Cc}]/u;
/** Characters that go with any family: they stay in the run that they stand in. */
const COMMON = /^[\p{Zs}\p{Cc}]+$/u;

/** The family that draws a grapheme, or null where no font has all of it. */
const familyFor = memoize((book: FontBook, family: string, grapheme: string): string | null => {
  const chain = PICTURE.test(grapheme)
    ? [EMOJI, ...listFallbackFamilies(family)]
    : listFallbackFamilies(family);
  const points = [...grapheme].filter((character) => !UNSEEN.test(character));
  const isDrawable = (name: string) =>
    points.every((point) => book.has(name, point.codePointAt(0) as number));
  return chain.find(isDrawable) ?? null;
});

/** A text in runs of one family each; what no font has stays in the chosen one. */
export function fontRuns(text: string, family: string, book: FontBook): FontRun[] {
  const runs: FontRun[] = [];
  for (const grapheme of splitGraphemes(text)) {
    const last = runs[runs.length - 1];
    const own = last && COMMON.test(grapheme) ? last.family : (familyFor(book, family, grapheme) ?? family);
    if (last?.family === own) last.text += grapheme;
    else runs.push({ text: grapheme, family: own });
  }
  return runs;
}

/** The graphemes of a text that no font has, each once: they would come out as boxes. */
export function findMissingGraphemes(text: string, family: string, book: FontBook): string[] {
  const lacks = (grapheme: string) => !COMMON.test(grapheme) && familyFor(book, family, grapheme) === null;
  return [...new Set(splitGraphemes(text).filter(lacks))];
}
