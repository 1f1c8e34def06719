import { toVisualOrder, computeBidiLevels } from './bidi';
import type { FontBook } from './font-index';
import { fontRuns } from './font-runs';
import { splitGraphemes } from './graphemes';
import type { Face, Measure } from './measure';
import { splitIntoPieces } from './pieces';
import type { TextArt } from './text-art';
import type { TextStyle } from './text-style';

/** Letters in a row that are drawn in one go. */
interface LaidRun extends Face {
  text: string;
  /** From the left edge of the box, and how wide it is; pixels. */
  x: number;
  width: number;
  rightToLeft: boolean;
  colour: string;
}

/** Line of laid-out words. */
export interface LaidLine {
  x: number;
  width: number;
  /** Of the baseline, and of the line's own edges; pixels below the top of the box. */
  baseline: number;
  top: number;
  bottom: number;
  runs: LaidRun[];
}

/** Words laid out in their box; places count from its top left corner. */
export interface LaidText {
  /** Of the letters, in pixels. */
  size: number;
  lines: LaidLine[];
  /** True when the words are larger than their box. */
  over: boolean;
}

/** Input of the layout besides the words. */
export interface LayoutInput {
  book: FontBook;
  measure: Measure;
}

/** Sizes are tried in steps of this many pixels, from this one on. */
const SIZE_STEP = 0.5;
const MIN_SIZE = 4;
/** Widths are sums of rounded advances. */
const NEARLY = 0.01;

/** A line before its place is known: its letters, and where they begin in the text. */
interface Line {
  from: number;
  to: number;
  /** As a share of the size. */
  width: number;
}

/** Lays words out in their box. Pure: the same words, fonts and measure give the same lines. */
export function layText(art: TextArt, setting: LayoutInput): LaidText {
  const text = new Paragraphs(art, setting);
  const size = art.size ?? largestFit(text, art);
  return text.laid(size);
}

/** The largest size at which the words fit their box; the least one where none does. */
function largestFit(text: Paragraphs, { box }: TextArt): number {
  let [low, high] = [MIN_SIZE / SIZE_STEP, Math.ceil(box.height / SIZE_STEP)];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (text.fits(middle * SIZE_STEP)) low = middle;
    else high = middle - 1;
  }
  return low * SIZE_STEP;
}

/** Shares of the size that a style draws beside and above its letters. */
export function computePadding({ plate, outline }: TextStyle): { across: number; down: number } {
  const around = outline?.width ?? 0;
  const pad = plate?.pad ?? 0;
  return { across: Math.max(around, pad), down: Math.max(around, pad / 2) };
}

/** A text with all that does not depend on its size. */
class Paragraphs {
  private readonly levels: Uint8Array;
  /** The family that draws each UTF-16 unit. */
  private readonly families: string[] = [];
  private readonly pieces: { from: number; to: number; width: number; trimmed: number; ends: boolean }[];

  constructor(
    private readonly art: TextArt,
    private readonly setting: LayoutInput,
  ) {
    this.levels = computeBidiLevels(art.text);
    for (const { text, family } of fontRuns(art.text, art.style.family, setting.book)) {
      for (let i = 0; i < text.length; i++) this.families.push(family);
    }
    let from = 0;
    this.pieces = splitIntoPieces(art.text).map(({ text, ends }) => {
      const to = from + text.length;
      const piece = {
        from,
        to,
        ends,
        width: this.measureWidth(from, to),
        trimmed: this.measureWidth(from, from + text.trimEnd().length),
      };
      from = to;
      return piece;
    });
  }

  fits(size: number): boolean {
    return !this.over(size, this.lines(size));
  }

  laid(size: number): LaidText {
    const { box, seat, style } = this.art;
    const lines = this.lines(size);
    const step = style.lineHeight * size;
    const room = box.height - lines.length * step;
    const top = seat === 'top' ? 0 : seat === 'middle' ? room / 2 : room;
    const inset = computePadding(style).down * size;
    const start = seat === 'top' ? inset : seat === 'bottom' ? top - inset : top;
    const { ascent, descent } = this.setting.book.family(style.family) ?? { ascent: 0.9, descent: 0.25 };
    const drop = (step + (ascent - descent) * size) / 2;
    return {
      size,
      over: this.over(size, lines),
      lines: lines.map((line, i) => this.placed(line, size, start + i * step, drop)),
    };
  }

  private over(size: number, lines: readonly Line[]): boolean {
    const { box, style } = this.art;
    const { across, down } = computePadding(style);
    const high = (lines.length * style.lineHeight + 2 * down) * size;
    const wide = (Math.max(0, ...lines.map((line) => line.width)) + 2 * across) * size;
    return high > box.height + NEARLY || wide > box.width + NEARLY || this.splitsWords(lines);
  }

  /** Tells whether a line ends inside a word, for want of room. */
  private splitsWords(lines: readonly Line[]): boolean {
    const ends = new Set(this.pieces.map((piece) => piece.to));
    return lines.some((line) => line.to < this.art.text.length && !ends.has(line.to));
  }

  /** The lines at a size: as much on each as its box is wide. */
  private lines(size: number): Line[] {
    const { box, style } = this.art;
    const room = box.width / size - 2 * computePadding(style).across + NEARLY;
    const lines: Line[] = [];
    let line = null as Line | null;
    for (const piece of this.pieces) {
      if (line && line.width + piece.trimmed > room) {
        lines.push(line);
        line = null;
      }
      if (!line && piece.trimmed > room) {
        const parts = this.broken(piece.from, piece.to, room);
        line = parts.pop() ?? null;
        lines.push(...parts);
      } else {
        line = { from: line?.from ?? piece.from, to: piece.to, width: (line?.width ?? 0) + piece.width };
      }
      if (piece.ends && line) {
        lines.push(line);
        line = null;
      }
    }
    if (line) lines.push(line);
    return lines.map((found) => this.trimmed(found));
  }

  private trimmed({ from, to }: Line): Line {
    const end = from + this.art.text.slice(from, to).trimEnd().length;
    return { from, to, width: this.measureWidth(from, end) };
  }

  /** A piece that is too wide for any line, broken between graphemes. */
  private broken(from: number, to: number, room: number): Line[] {
    const lines: Line[] = [];
    let line: Line = { from, to: from, width: 0 };
    for (const grapheme of splitGraphemes(this.art.text.slice(from, to))) {
      const next = { ...line, to: line.to + grapheme.length };
      next.width = this.measureWidth(next.from, next.to);
      if (next.width > room && line.to > line.from) {
        lines.push(line);
        line = { from: line.to, to: next.to, width: this.measureWidth(line.to, next.to) };
      } else line = next;
    }
    return [...lines, line];
  }

  private placed(line: Line, size: number, top: number, drop: number): LaidLine {
    const { box, style } = this.art;
    const inset = computePadding(style).across * size;
    const width = line.width * size;
    const room = box.width - 2 * inset - width;
    const x = inset + (style.align === 'left' ? 0 : style.align === 'middle' ? room / 2 : room);
    let at = x;
    const end = line.from + this.art.text.slice(line.from, line.to).trimEnd().length;
    const runs = toVisualOrder(this.runs(line.from, end)).map(({ level, advance, ...run }): LaidRun => {
      const placed = { ...run, x: at, width: advance * size, rightToLeft: level % 2 === 1 };
      at += placed.width;
      return placed;
    });
    // Letters that stand on a whole pixel are sharp.
    const baseline = Math.round(box.y + top + drop) - box.y;
    return { x, width, baseline, top, bottom: top + style.lineHeight * size, runs };
  }

  private measureWidth(from: number, to: number): number {
    return this.runs(from, to).reduce((sum, run) => sum + run.advance, 0);
  }

  /** Letters of the text in runs of one family, one direction and one colour, in the order in which they are read. */
  private runs(from: number, to: number) {
    const { text, style, mark } = this.art;
    const { book, measure } = this.setting;
    const toColour = (place: number) =>
      mark && place >= mark.from && place < mark.to ? mark.colour : style.colour;
    const runs: (Face & { text: string; level: number; colour: string; advance: number })[] = [];
    let place = from;
    while (place < to) {
      const level = this.levels[place] ?? 0;
      const colour = toColour(place);
      const family = this.families[place] as string;
      const isAlike = (next: number) =>
        this.levels[next] === level && this.families[next] === family && toColour(next) === colour;
      let next = place + 1;
      while (next < to && isAlike(next)) next++;
      const drawn = text.slice(place, next).replace(/[\n\r]/g, '');
      const weight = book.weight(family, style.weight);
      const advance = drawn === '' ? 0 : measure.advance(drawn, { family, weight }, level % 2 === 1);
      if (drawn !== '') runs.push({ text: drawn, family, weight, level, colour, advance });
      place = next;
    }
    return runs;
  }
}
