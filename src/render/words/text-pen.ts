import type { LaidLine, LaidText } from '@core/words/lay-text';
import type { TextArt } from '@core/words/text-art';
import type { Fonts } from './fonts';

export type Ink = OffscreenCanvasRenderingContext2D;

/** Sets what text is drawn and measured in. */
export function setFace(ink: Ink, fonts: Fonts, { family, weight, size }: Face): void {
  ink.font = `${weight} ${size}px ${fonts.stack(family, weight)}`;
  ink.fontKerning = 'normal';
  ink.textRendering = 'geometricPrecision';
}

interface Face {
  family: string;
  weight: number;
  /** In pixels. */
  size: number;
}

/** `#RRGGBB` with an opacity. @param cover 0…1. */
const withCover = (colour: string, cover: number): string =>
  `${colour}${Math.round(cover * 255)
    .toString(16)
    .padStart(2, '0')}`;

/** Draws words that are laid out, and what lies behind them, from the corner of their box. */
export class TextPen {
  constructor(
    private readonly ink: Ink,
    private readonly fonts: Fonts,
    private readonly art: TextArt,
    private readonly laid: LaidText,
  ) {}

  /** All that lies behind the letters. */
  behind(): void {
    const { ink, art } = this;
    if (art.ground !== null) {
      ink.fillStyle = art.ground;
      ink.fillRect(0, 0, art.box.width, art.box.height);
    }
    this.plates();
    this.shadow();
    this.outline();
  }

  letters(): void {
    this.eachRun((text, x, y, colour) => {
      this.ink.fillStyle = colour;
      this.ink.fillText(text, x, y);
    });
  }

  /** A line around the letters, of some width outside them. */
  around(width: number): void {
    this.eachRun((text, x, y) => this.stroke(text, x, y, width));
  }

  private plates(): void {
    const { ink } = this;
    const { plate } = this.art.style;
    if (!plate) return;
    const { lines, size } = this.laid;
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
  private shadow(): void {
    const { ink } = this;
    const { shadow, outline } = this.art.style;
    if (!shadow) return;
    const { size } = this.laid;
    ink.save();
    ink.filter = shadow.blur > 0 ? `blur(${shadow.blur * size}px)` : 'none';
    ink.translate(shadow.across * size, shadow.down * size);
    ink.fillStyle = ink.strokeStyle = withCover(shadow.colour, shadow.cover);
    this.eachRun((text, x, y) => {
      if (outline) this.stroke(text, x, y, outline.width * size);
      ink.fillText(text, x, y);
    });
    ink.restore();
  }

  private outline(): void {
    const { outline } = this.art.style;
    if (!outline) return;
    this.ink.strokeStyle = outline.colour;
    this.around(outline.width * this.laid.size);
  }

  /** Letters cover the inner half of a line around them, so that it is drawn twice as wide. */
  private stroke(text: string, x: number, y: number, width: number): void {
    this.ink.lineJoin = 'round';
    this.ink.lineWidth = 2 * width;
    this.ink.strokeText(text, x, y);
  }

  private eachRun(draw: (text: string, x: number, baseline: number, colour: string) => void): void {
    const { ink, fonts } = this;
    const { lines, size } = this.laid;
    ink.textAlign = 'left';
    ink.textBaseline = 'alphabetic';
    for (const { runs, baseline } of lines as readonly LaidLine[]) {
      for (const { text, x, family, weight, rightToLeft, colour } of runs) {
        setFace(ink, fonts, { family, weight, size });
        ink.direction = rightToLeft ? 'rtl' : 'ltr';
        draw(text, x, baseline, colour);
      }
    }
  }
}
