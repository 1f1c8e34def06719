import type { Size } from '@core/picture/size';
import type { TextArt } from '@core/words/text-art';
import type { Fonts } from './fonts';
import { type Drawing, TextPainter } from './text-painter';

/** Drawings that are kept at most: those of one moment on a few canvases, and of the moments around it. */
const MAX_KEPT = 24;

/** Draws words once, and remembers the drawings that were used last. */
export class Drawings {
  private readonly kept = new Map<string, Drawing | null>();

  private readonly painter: TextPainter;

  constructor(fonts: Fonts) {
    this.painter = new TextPainter(fonts);
  }

  /** Tells whether the fonts that words need are loaded. */
  ready(art: TextArt): boolean {
    return this.painter.fonts.has(art);
  }

  /** Loads the fonts that words need. @throws TroubleError `server-down`, `server-answer`, `font-gone`. */
  async load(arts: readonly TextArt[]): Promise<void> {
    await this.painter.fonts.load(arts);
  }

  /** The drawing of words on a canvas; null where nothing of them lies on it. Their fonts must be loaded. */
  of(art: TextArt, { width, height }: Size): Drawing | null {
    const key = `${width}×${height} ${JSON.stringify(art)}`;
    const known = this.kept.get(key);
    const drawing = known === undefined ? this.painter.draw(art, { width, height }) : known;
    // The one that was used last stands last.
    this.kept.delete(key);
    this.kept.set(key, drawing);
    if (this.kept.size > MAX_KEPT) this.kept.delete(this.kept.keys().next().value as string);
    return drawing;
  }
}
