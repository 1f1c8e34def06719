import { isOwnFamily } from '@core/words/families';
import { FontBook, type FontFamily, type FontFile, type FontIndex } from '@core/words/font-index';
import { fontRuns } from '@core/words/font-runs';
import type { TextArt } from '@core/words/text-art';

type Words = Pick<TextArt, 'text' | 'style'>;

/** How fonts come to where words are drawn: a browser, or a server. */
export interface FontLoader {
  /** A family of a person's own, or null where it is not here. */
  own(family: string): Promise<FontFamily | null>;
  /** Fetches a file of a family. @returns what has it drawn with. @throws TroubleError where it cannot be had. */
  load(file: FontFile, family: string): Promise<() => void>;
  /** The names that a family has for a canvas in a weight that it has, as CSS has them in `font-family`. */
  stack(family: string, weight: number): string;
}

/** The fonts that words are drawn with: files are loaded when words first need them. */
export class Fonts {
  private readonly files = new Map<FontFile, 'loading' | 'there'>();
  private readonly families = new Set<string>();
  private now: FontBook;

  /** @param index those that ship. */
  constructor(
    index: FontIndex,
    private readonly loader: FontLoader,
  ) {
    this.now = new FontBook(index);
  }

  /** Characters of the fonts. */
  get book(): FontBook {
    return this.now;
  }

  /** See {@link FontLoader.stack}. @param weight the family has one that is near. */
  stack(family: string, weight: number): string {
    return this.loader.stack(family, this.book.weight(family, weight));
  }

  /** Tells whether all that words need is there. */
  has(words: Words): boolean {
    return (
      this.knows(words) && this.listFontFiles(words).every(({ file }) => this.files.get(file) === 'there')
    );
  }

  /** Loads what words need. @throws TroubleError `server-down`, `server-answer`, `font-gone`. */
  async load(all: readonly Words[]): Promise<void> {
    for (const { style } of all) if (isOwnFamily(style.family)) await this.know(style.family);
    const missing = new Map<FontFile, string>();
    for (const words of all) {
      for (const { file, family } of this.listFontFiles(words)) {
        if (!this.files.has(file)) missing.set(file, family);
      }
    }
    const loaded = await Promise.all([...missing].map(([file, family]) => this.fetch(file, family)));
    // In their own order: it says which of two files draws what both have.
    for (const take of loaded) take();
  }

  private knows({ style: { family } }: Words): boolean {
    return !isOwnFamily(family) || this.families.has(family);
  }

  /** Takes up a family of a person's own; one that is not here stays unknown. */
  private async know(family: string): Promise<void> {
    if (this.families.has(family)) return;
    const own = await this.loader.own(family);
    this.families.add(family);
    if (own) this.now = new FontBook({ families: { ...this.now.index.families, [family]: own } });
  }

  /** Emoji are drawn in one weight, whatever the words have. */
  private listFontFiles({ text, style }: Words): { file: FontFile; family: string }[] {
    const runs = fontRuns(text, style.family, this.book);
    const files = runs.flatMap(({ text, family }) =>
      this.book.chooseFiles(family, style.weight, text).map((file) => ({ file, family })),
    );
    return [...new Map(files.map((found) => [found.file, found])).values()];
  }

  private async fetch(file: FontFile, family: string): Promise<() => void> {
    this.files.set(file, 'loading');
    try {
      const take = await this.loader.load(file, family);
      return () => {
        take();
        this.files.set(file, 'there');
      };
    } catch (error) {
      this.files.delete(file);
      throw error;
    }
  }
}
