const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** What a reader takes for characters, one after another (UAX #29, by the engine's own tables). */
export const graphemesOf = (text: string): string[] =>
  Array.from(segmenter.segment(text), ({ segment }) => segment);
