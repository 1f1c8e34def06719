import { isOwnFamily } from '@core/words/families';
import { type FontFile, type FontIndex, fontIndexSchema } from '@core/words/font-index';
import { type FontLoader, Fonts } from '@render/words/fonts';
import { freshFile, keptFiles } from '../store/kept-files';
import { ownFontBytes, ownFontFamily } from './own-fonts';

/** Where the fonts that ship lie on our own server. */
const FOLDER = '/fonts/';

/** Loads the index of the fonts that ship. @throws TroubleError `server-down`, `server-answer`. */
export function shippedFonts(): Promise<FontIndex> {
  return freshFile(`${FOLDER}index.json`, 'fonts', (bytes) =>
    Promise.resolve(fontIndexSchema.parse(JSON.parse(new TextDecoder().decode(bytes)))),
  );
}

/** The fonts of this thread. @throws TroubleError `server-down`, `server-answer`. */
export const openFonts = async (): Promise<Fonts> => new Fonts(await shippedFonts(), LOADER);

const toName = (family: string): string => `gusset-${family}`;

const LOADER: FontLoader = {
  own: ownFontFamily,
  stack: (family) => `"${toName(family)}"`,
  async load(file, family) {
    const face = isOwnFamily(family)
      ? await loadFace(family, file, await ownFontBytes(family))
      : await keptFiles([`${FOLDER}${file.file}`], 'fonts', ([bytes]) =>
          bytes ? loadFace(family, file, bytes) : Promise.resolve(null),
        );
    return () => fontsOfThread().add(face);
  },
};

/** A face that this thread can draw with. */
function loadFace(family: string, { weight, ranges }: FontFile, bytes: ArrayBuffer): Promise<FontFace> {
  const unicodeRange = ranges
    .split(',')
    .map((range) => `U+${range}`)
    .join();
  return new FontFace(toName(family), bytes, { weight: String(weight), unicodeRange }).load();
}

/** A page has its fonts in its document, a worker by itself (CSS Font Loading, `FontFaceSource`). */
const fontsOfThread = (): { add(face: FontFace): void } =>
  typeof document === 'undefined'
    ? (globalThis as unknown as { fonts: { add(face: FontFace): void } }).fonts
    : document.fonts;
