import { inkBox } from '@core/words/ink-box';
import { type LaidText, layText, type LayoutInput } from '@core/words/lay-text';
import type { TextArt } from '@core/words/text-art';
import type { CanvasRect, Size } from '@core/picture/size';
import type { Fonts } from './fonts';
import { type Ink, setFace, TextPen } from './text-pen';

/** A drawing of words, and where it lies on its canvas. */
export interface Drawing {
  /** Pixels of the canvas, on even edges. */
  rect: CanvasRect;
  surface: OffscreenCanvas;
  laid: LaidText;
}

/** A drawing of words in parts of one size. */
export interface DrawnParts extends Pick<Drawing, 'rect' | 'laid'> {
  behind: OffscreenCanvas;
  letters: OffscreenCanvas;
  rim: OffscreenCanvas;
}

/** How far around letters it counts what they stand out from: a share of the size, and the least in pixels. */
const RIM = 0.06;
const MIN_RIM = 2;
/** Widths are measured at this size, in pixels, at which rounding does not tell. */
const MEASURED = 256;
/** Widths that are remembered at most. */
const MAX_WIDTHS = 20_000;

function measureInk(surface: OffscreenCanvas): Ink {
  const ink = surface.getContext('2d', { willReadFrequently: true });
  if (!ink) throw new Error('there is no 2D canvas here');
  return ink;
}

/** Draws words as they are laid out: the preview, the export, the cover and what is measured all draw with this. */
export class TextPainter {
  private readonly widths = new Map<string, number>();
  private readonly gauge = measureInk(new OffscreenCanvas(1, 1));

  constructor(readonly fonts: Fonts) {}

  /** How the words of a drawing lie. Their fonts must be loaded. */
  lay(art: TextArt): LaidText {
    return layText(art, this.setting());
  }

  /** Draws words by themselves; null where nothing of them lies on the canvas. Their fonts must be loaded. */
  draw(art: TextArt, canvas: Size): Drawing | null {
    const laid = this.lay(art);
    const rect = inkBox(art, laid, canvas);
    if (!rect) return null;
    const surface = this.layer(rect, art, laid, (pen) => {
      pen.behind();
      pen.letters();
    });
    return { rect, surface, laid };
  }

  /** A drawing in parts: what lies behind the letters, the letters, and these with a rim around them. */
  parts(art: TextArt, canvas: Size): DrawnParts | null {
    const laid = this.lay(art);
    const rect = inkBox(art, laid, canvas);
    if (!rect) return null;
    const width = Math.max(MIN_RIM, RIM * laid.size);
    return {
      rect,
      laid,
      behind: this.layer(rect, art, laid, (pen) => pen.behind()),
      letters: this.layer(rect, art, laid, (pen) => pen.letters()),
      rim: this.layer(rect, art, laid, (pen) => pen.around(width)),
    };
  }

  /** A surface for a rectangle of the canvas, drawn on from the corner of a drawing's box. */
  private layer(
    rect: CanvasRect,
    art: TextArt,
    laid: LaidText,
    draw: (pen: TextPen) => void,
  ): OffscreenCanvas {
    const surface = new OffscreenCanvas(rect.width, rect.height);
    const ink = measureInk(surface);
    ink.translate(art.box.x - rect.x, art.box.y - rect.y);
    draw(new TextPen(ink, this.fonts, art, laid));
    return surface;
  }

  private setting(): LayoutInput {
    return {
      book: this.fonts.book,
      measure: { advance: (text, face, rightToLeft) => this.advance(text, face, rightToLeft) },
    };
  }

  private advance(
    text: string,
    { family, weight }: { family: string; weight: number },
    rightToLeft: boolean,
  ): number {
    const key = `${weight} ${family} ${rightToLeft} ${text}`;
    const known = this.widths.get(key);
    if (known !== undefined) return known;
    if (this.widths.size > MAX_WIDTHS) this.widths.clear();
    setFace(this.gauge, this.fonts, { family, weight, size: MEASURED });
    this.gauge.direction = rightToLeft ? 'rtl' : 'ltr';
    const width = this.gauge.measureText(text).width / MEASURED;
    this.widths.set(key, width);
    return width;
  }
}
