import * as fontkit from 'fontkit';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { FontBook, fontIndexSchema } from '@core/words/font-index';
import { splitGraphemes } from '@core/words/graphemes';
import type { LayoutInput } from '@core/words/lay-text';

const FOLDER = path.join(__dirname, '../public/fonts');

/** The fonts that ship, measured by a library that reads font files itself: no browser is needed. */
export function fontSetting(): LayoutInput {
  const index: unknown = JSON.parse(readFileSync(path.join(FOLDER, 'index.json'), 'utf8'));
  const book = new FontBook(fontIndexSchema.parse(index));
  const open = new Map<string, fontkit.Font>();
  const fontOf = (file: string): fontkit.Font => {
    const known = open.get(file) ?? (fontkit.create(readFileSync(path.join(FOLDER, file))) as fontkit.Font);
    open.set(file, known);
    return known;
  };
  return {
    book,
    measure: {
      advance(text, { family, weight }) {
        const files = book.chooseFiles(family, weight, text).map((file) => fontOf(file.file));
        const fontFor = (grapheme: string) =>
          files.find((font) => font.hasGlyphForCodePoint(grapheme.codePointAt(0) as number));
        let width = 0;
        let run = '';
        let last = files[0];
        const put = () => {
          if (last && run !== '') width += last.layout(run).advanceWidth / last.unitsPerEm;
          run = '';
        };
        for (const grapheme of splitGraphemes(text)) {
          const font = fontFor(grapheme) ?? last;
          if (font !== last) put();
          last = font;
          run += grapheme;
        }
        put();
        return width;
      },
    },
  };
}
