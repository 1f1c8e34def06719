import { syllable } from 'syllable';

/** A word of a text, by its place in it. */
export interface WordPlace {
  from: number;
  to: number;
}

/** The words of a text: what stands between spaces. */
export function locateWords(text: string): WordPlace[] {
  return Array.from(text.matchAll(/\S+/gu), (found) => ({
    from: found.index,
    to: found.index + found[0].length,
  }));
}

/** How long a word takes to say, in syllables; one that has no vowel that is known, by its letters. */
export function countSyllables(word: string): number {
  const letters = word.match(/[\p{L}\p{N}]/gu)?.length ?? 0;
  const latin = /\p{Script=Latin}/u.test(word);
  return Math.max(latin ? syllable(word) : Math.round(letters / 2), letters > 0 ? 1 : 0, 0.5);
}

/** When each word of a cue begins, 0…1 of it: spread by syllables. */
export function spokenStarts(text: string): number[] {
  const lengths = locateWords(text).map(({ from, to }) => countSyllables(text.slice(from, to)));
  const whole = lengths.reduce((sum, length) => sum + length, 0);
  let said = 0;
  return lengths.map((length) => {
    const start = said / whole;
    said += length;
    return start;
  });
}
