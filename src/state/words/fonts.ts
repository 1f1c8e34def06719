import { useEffect } from 'react';
import { z } from 'zod';
import { create } from 'zustand';
import { FontBook } from '@core/words/font-index';
import { type Trouble, toTrouble } from '@core/trouble/trouble';
import { shippedFonts } from '@media/words/fonts';
import { ownFontFamily, ownFontNames } from '@media/words/own-fonts';
import { deleteStored } from '@media/store/storage';
import { keepFont } from '@media/worker/tasks';
import { serverTrouble } from '../server';
import { sharedSetting } from '../store';

const SETTING = 'fonts';
const ownFontsSchema = z.array(z.object({ family: z.string(), name: z.string() }));
export type OwnFont = z.infer<typeof ownFontsSchema>[number];

/** The fonts that words may have. */
interface FontsState {
  /** Characters of the fonts; null until the list was read. */
  book: FontBook | null;
  /** Fonts that a person brought in. */
  own: OwnFont[];
  trouble: Trouble | null;
}

export const useFontList = create<FontsState>(() => ({ book: null, own: [], trouble: null }));

let reading: Promise<void> | null = null;

/** Reads the list of fonts once; again where that failed. */
function readFonts(): Promise<void> {
  reading ??= shippedFonts()
    .then(async ({ families }) => {
      const own = await storedFonts.load();
      const theirs = await Promise.all(
        own.map(async ({ family }) => [family, await ownFontFamily(family)] as const),
      );
      const there = Object.fromEntries(theirs.flatMap(([name, family]) => (family ? [[name, family]] : [])));
      useFontList.setState({
        book: new FontBook({ families: { ...families, ...there } }),
        own: own.filter(({ family }) => family in there),
        trouble: null,
      });
    })
    .catch((error: unknown) => {
      reading = null;
      useFontList.setState({ trouble: serverTrouble({ who: 'The server', errand: 'fonts' }, error) });
    });
  return reading;
}

/** Finds the characters of the fonts; null until they are known. */
export function useFontBook(): FontBook | null {
  useEffect(() => void readFonts(), []);
  return useFontList((state) => state.book);
}

/** Fonts that were brought in at earlier visits; a damaged list is none. */
const storedFonts = sharedSetting<OwnFont[]>(SETTING, {
  label: 'fonts',
  read: (text) => ownFontsSchema.parse(JSON.parse(text ?? '[]')),
  write: (all) => JSON.stringify(all),
});

/** Takes a file as a font of the person's own. @returns it, or null where it is none: the trouble is told. */
export async function addFont(file: File): Promise<OwnFont | null> {
  try {
    const font = await keepFont({ file });
    const { book } = useFontList.getState();
    const facts = await ownFontFamily(font.family);
    const own = await storedFonts.change((all) => [
      ...all.filter(({ family }) => family !== font.family),
      font,
    ]);
    useFontList.setState({
      own,
      trouble: null,
      ...(book &&
        facts && { book: new FontBook({ families: { ...book.index.families, [font.family]: facts } }) }),
    });
    return font;
  } catch (error) {
    useFontList.setState({ trouble: toTrouble(error, 'not-font', { file: file.name }) });
    return null;
  }
}

/** Forgets a font of the person's own; words that have it are drawn with others. */
export async function dropFont(family: string): Promise<void> {
  const own = await storedFonts.change((all) => all.filter((font) => font.family !== family));
  useFontList.setState({ own });
  const { bytes, facts } = ownFontNames(family);
  await deleteStored('fonts', bytes);
  await deleteStored('fonts', facts);
}
