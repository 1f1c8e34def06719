import { useEffect } from 'react';
import { create } from 'zustand';
import { FontBook } from '@core/words/font-index';
import type { Trouble } from '@core/trouble/trouble';
import { shippedFonts } from '@media/words/fonts';
import { serverTrouble } from './server';

/** The fonts that words may have. */
interface FontsState {
  /** Which characters they have; null until the list was read. */
  book: FontBook | null;
  trouble: Trouble | null;
}

export const useFontList = create<FontsState>(() => ({ book: null, trouble: null }));

let reading: Promise<void> | null = null;

/** Reads the list of fonts once; again where that failed. */
function readFonts(): Promise<void> {
  reading ??= shippedFonts()
    .then((index) => useFontList.setState({ book: new FontBook(index), trouble: null }))
    .catch((error: unknown) => {
      reading = null;
      useFontList.setState({ trouble: serverTrouble({ who: 'The server', errand: 'fonts' }, error) });
    });
  return reading;
}

/** Which characters fonts have; null until that is known. */
export function useFontBook(): FontBook | null {
  useEffect(() => void readFonts(), []);
  return useFontList((state) => state.book);
}
