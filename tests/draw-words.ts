import type { TextArt } from '@core/words/text-art';
import { openFonts } from '@media/words/fonts';
import { drawnWords } from './drawn-words';

Object.assign(globalThis, { drawnWords: async (arts: TextArt[]) => drawnWords(await openFonts(), arts) });
