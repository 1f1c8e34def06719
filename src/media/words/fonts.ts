import { isOwnFamily } from '@core/words/families';
import { FontBook, type FontFile, type FontIndex, fontIndexSchema } from '@core/words/font-index';
import { fontRuns } from '@core/words/font-runs';
import type { TextArt } from '@core/words/text-art';
import { freshFile, keptFiles } from '../store/kept-files';
import { ownFontBytes, ownFontFamily } from './own-fonts';

/** Where the fonts that ship lie on our own server. */
const FOLDER = '/fonts/';

type Words = Pick<TextArt, 'text' | 'style'>;

/** The name that a family has for a canvas. */
export const cssFamily = (family: string): string => `gusset-${family}`;

/** What fonts ship. @throws TroubleError `server-down`, `server-answer`. */
export function shippedFonts(): Promise<FontIndex> {
  return freshFile(`${FOLDER}index.json`, 'fonts', (bytes) =>
    Promise.resolve(fontIndexSchema.parse(JSON.parse(new TextDecoder().decode(bytes)))),
  );
}

/** The fonts of this thread: files are loaded when words first need them. */
export class Fonts {
  private readonly files = new Map<FontFile, 'loading' | 'there'>();
  private readonly families = new Set<string>();

  private constructor(public book: FontBook) {}

  /** @throws TroubleError `server-down`, `server-answer`. */
  static async open(): Promise<Fonts> {
    return new Fonts(new FontBook(await shippedFonts()));
  }

  /** Whether all that words need is there. */
  has(words: Words): boolean {
    return this.knows(words) && this.filesOf(words).every(({ file }) => this.files.get(file) === 'there');
  }

  /** Loads what words need. @throws TroubleError `server-down`, `server-answer`. */
  async load(all: readonly Words[]): Promise<void> {
    for (const { style } of all) if (isOwnFamily(style.family)) await this.know(style.family);
    const missing = new Map<FontFile, string>();
    for (const words of all) {
      for (const { file, family } of this.filesOf(words)) {
        if (!this.files.has(file)) missing.set(file, family);
      }
    }
    await Promise.all([...missing].map(([file, family]) => this.fetch(file, family)));
  }

  private knows({ style: { family } }: Words): boolean {
    return !isOwnFamily(family) || this.families.has(family);
  }

  /** Takes up a family of a person's own; one that is not in this browser stays unknown. */
  private async know(family: string): Promise<void> {
    if (this.families.has(family)) return;
    const own = await ownFontFamily(family);
    this.families.add(family);
    if (own) this.book = new FontBook({ families: { ...this.book.index.families, [family]: own } });
  }

  /** Emoji are drawn in one weight, whatever the words have. */
  private filesOf({ text, style }: Words): { file: FontFile; family: string }[] {
    const runs = fontRuns(text, style.family, this.book);
    const files = runs.flatMap(({ text, family }) =>
      this.book.filesFor(family, style.weight, text).map((file) => ({ file, family })),
    );
    return [...new Map(files.map((found) => [found.file, found])).values()];
  }

  private async fetch(file: FontFile, family: string): Promise<void> {
    this.files.set(file, 'loading');
    try {
      const face = isOwnFamily(family)
        ? await loaded(family, file, await ownFontBytes(family))
        : await keptFiles([`${FOLDER}${file.file}`], 'fonts', ([bytes]) =>
            bytes ? loaded(family, file, bytes) : Promise.resolve(null),
          );
      fontsOfThread().add(face);
      this.files.set(file, 'there');
    } catch (error) {
      this.files.delete(file);
      throw error;
    }
  }
}

/** A face that this thread can draw with. */
function loaded(family: string, { weight, ranges }: FontFile, bytes: ArrayBuffer): Promise<FontFace> {
  const unicodeRange = ranges
    .split(',')
    .map((range) => `U+${range}`)
    .join();
  return new FontFace(cssFamily(family), bytes, { weight: String(weight), unicodeRange }).load();
}

/** A page has its fonts in its document, a worker by itself (CSS Font Loading, `FontFaceSource`). */
const fontsOfThread = (): { add(face: FontFace): void } =>
  typeof document === 'undefined'
    ? (globalThis as unknown as { fonts: { add(face: FontFace): void } }).fonts
    : document.fonts;
