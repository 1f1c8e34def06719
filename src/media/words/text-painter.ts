import { inkBox } from '@core/words/ink-box';
import type { LaidLine, LaidText, Setting } from '@core/words/lay-text';
import { layText } from '@core/words/lay-text';
import type { TextArt } from '@core/words/text-art';
import type { CanvasRect, Size } from '@core/picture/size';
import { cssFamily, type Fonts } from './fonts';

type Ink = OffscreenCanvasRenderingContext2D;

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
const LEAST_RIM = 2;
/** Widths are measured at this size, in pixels, at which rounding does not tell. */
const MEASURED = 256;
/** Widths that are remembered at most. */
const MOST_WIDTHS = 20_000;

function inkOf(surface: OffscreenCanvas): Ink {
  const ink = surface.getContext('2d', { willReadFrequently: true });
  if (!ink) throw new Error('this browser gives no 2D canvas to a worker');
  return ink;
}

function setFace(ink: Ink, family: string, weight: number, size: number): void {
  ink.font = `${weight} ${size}px "${cssFamily(family)}"`;
  ink.fontKerning = 'normal';
  ink.textRendering = 'geometricPrecision';
}

/** `#RRGGBB` with an opacity. @param cover 0…1. */
const withCover = (colour: string, cover: number): string =>
  `${colour}${Math.round(cover * 255)
    .toString(16)
    .padStart(2, '0')}`;

/** Draws words as they are laid out: the preview, the export, the cover and what is measured all draw with this. */
export class TextPainter {
  private readonly widths = new Map<string, number>();
  private readonly gauge = inkOf(new OffscreenCanvas(1, 1));

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
    const surface = layer(rect, art, (ink) => {
      drawBehind(ink, art, laid);
      drawLetters(ink, laid);
    });
    return { rect, surface, laid };
  }

  /** A drawing in parts: what lies behind the letters, the letters, and these with a rim around them. */
  parts(art: TextArt, canvas: Size): DrawnParts | null {
    const laid = this.lay(art);
    const rect = inkBox(art, laid, canvas);
    if (!rect) return null;
    const width = Math.max(LEAST_RIM, RIM * laid.size);
    return {
      rect,
      laid,
      behind: layer(rect, art, (ink) => drawBehind(ink, art, laid)),
      letters: layer(rect, art, (ink) => drawLetters(ink, laid)),
      rim: layer(rect, art, (ink) => eachRun(ink, laid, (text, x, y) => stroke(ink, text, x, y, width))),
    };
  }

  private setting(): Setting {
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
    if (this.widths.size > MOST_WIDTHS) this.widths.clear();
    setFace(this.gauge, family, weight, MEASURED);
    this.gauge.direction = rightToLeft ? 'rtl' : 'ltr';
    const width = this.gauge.measureText(text).width / MEASURED;
    this.widths.set(key, width);
    return width;
  }
}

/** A surface for a rectangle of the canvas, drawn on from the corner of a drawing's box. */
function layer(rect: CanvasRect, { box }: TextArt, draw: (ink: Ink) => void): OffscreenCanvas {
  const surface = new OffscreenCanvas(rect.width, rect.height);
  const ink = inkOf(surface);
  ink.translate(box.x - rect.x, box.y - rect.y);
  draw(ink);
  return surface;
}

/** All that a drawing has behind its letters. */
function drawBehind(ink: Ink, art: TextArt, laid: LaidText): void {
  if (art.ground !== null) {
    ink.fillStyle = art.ground;
    ink.fillRect(0, 0, art.box.width, art.box.height);
  }
  drawPlates(ink, art, laid);
  drawShadow(ink, art, laid);
  drawOutline(ink, art, laid);
}

function drawPlates(ink: Ink, { style }: TextArt, { lines, size }: LaidText): void {
  const { plate } = style;
  if (!plate) return;
  const [pad, radius] = [plate.pad * size, plate.radius * size];
  ink.fillStyle = withCover(plate.colour, plate.cover);
  // One shape, so that plates of lines that touch do not darken each other.
  ink.beginPath();
  for (const line of lines.filter((line) => line.width > 0)) {
    const [x, y] = [line.x - pad, line.top - pad / 2];
    const [width, height] = [line.width + 2 * pad, line.bottom - line.top + pad];
    ink.roundRect(x, y, width, height, Math.min(radius, height / 2));
  }
  ink.fill('nonzero');
}

/** Where an outline is, it throws the shadow; else the letters do. */
function drawShadow(ink: Ink, { style }: TextArt, laid: LaidText): void {
  const { shadow, outline } = style;
  if (!shadow) return;
  const { size } = laid;
  ink.save();
  ink.filter = shadow.blur > 0 ? `blur(${shadow.blur * size}px)` : 'none';
  ink.translate(shadow.across * size, shadow.down * size);
  ink.fillStyle = ink.strokeStyle = withCover(shadow.colour, shadow.cover);
  eachRun(ink, laid, (text, x, y) => {
    if (outline) stroke(ink, text, x, y, outline.width * size);
    ink.fillText(text, x, y);
  });
  ink.restore();
}

function drawOutline(ink: Ink, { style }: TextArt, laid: LaidText): void {
  const { outline } = style;
  if (!outline) return;
  ink.strokeStyle = outline.colour;
  eachRun(ink, laid, (text, x, y) => stroke(ink, text, x, y, outline.width * laid.size));
}

/** Letters cover the inner half of a line around them, so that it is drawn twice as wide. */
function stroke(ink: Ink, text: string, x: number, y: number, width: number): void {
  ink.lineJoin = 'round';
  ink.lineWidth = 2 * width;
  ink.strokeText(text, x, y);
}

function drawLetters(ink: Ink, laid: LaidText): void {
  eachRun(ink, laid, (text, x, y, colour) => {
    ink.fillStyle = colour;
    ink.fillText(text, x, y);
  });
}

function eachRun(
  ink: Ink,
  { lines, size }: LaidText,
  draw: (text: string, x: number, baseline: number, colour: string) => void,
): void {
  ink.textAlign = 'left';
  ink.textBaseline = 'alphabetic';
  for (const { runs, baseline } of lines as readonly LaidLine[]) {
    for (const { text, x, family, weight, rightToLeft, colour } of runs) {
      setFace(ink, family, weight, size);
      ink.direction = rightToLeft ? 'rtl' : 'ltr';
      draw(text, x, baseline, colour);
    }
  }
}
