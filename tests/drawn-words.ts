import type { CanvasRect } from '../src/core/picture/size';
import type { TextArt } from '../src/core/words/text-art';
import { Drawings } from '../src/render/words/drawings';
import type { Fonts } from '../src/render/words/fonts';

const CANVAS = { width: 1080, height: 1920 };

/** A drawing as bytes that a page can tell: red, green, blue and alpha of each pixel, as characters. */
export interface DrawnWords {
  rect: CanvasRect;
  pixels: string;
}

/** Draws words with some fonts. */
export async function drawnWords(fonts: Fonts, arts: readonly TextArt[]): Promise<DrawnWords[]> {
  const drawings = new Drawings(fonts);
  await drawings.load(arts);
  return arts.map((art) => {
    const drawing = drawings.of(art, CANVAS);
    if (!drawing) throw new Error(`nothing of “${art.text}” is drawn`);
    const { rect, surface } = drawing;
    const { data } = surface.getContext('2d')!.getImageData(0, 0, rect.width, rect.height);
    let pixels = '';
    for (const byte of data) pixels += String.fromCharCode(byte);
    return { rect, pixels };
  });
}
