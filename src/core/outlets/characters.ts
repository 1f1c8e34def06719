/** Characters as a reader counts them: what stands as one sign is one, however many code points it takes (UAX #29). */
const graphemes = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** How many characters a text has. */
export const countCharacters = (text: string): number => [...graphemes.segment(text)].length;

/** A text cut off after so many characters. */
export const cutOff = (text: string, count: number): string =>
  [...graphemes.segment(text)]
    .slice(0, count)
    .map(({ segment }) => segment)
    .join('');
