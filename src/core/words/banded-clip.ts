import { contrastRatio, computeLuminance } from './contrast';
import { freshBlockId } from './block-list';
import type { Spans } from './spans';
import { type Box, plainBlock, type TextBlock } from './text-block';
import { PLAIN_STYLE } from './text-style';

/** Words of a band, and when they are seen; the whole clip long where nothing is said. */
interface BandLine {
  text: string;
  spans: Spans | null;
}

/** Words of a banded clip, above its picture and below it. */
export interface BandWords {
  above: readonly BandLine[];
  below: readonly BandLine[];
}

/** A band's words fill most of it. */
const ABOVE: Box = { x: 0.05, y: 0.1, width: 0.9, height: 0.8 };
const BELOW: Box = { x: 0.05, y: 0.2, width: 0.9, height: 0.6 };
const INK = '#1F2B33';
const CHALK = '#FFFDF7';

/** The one of ink and chalk that stands out from a colour the more. */
export const chooseReadableColour = (colour: string): string =>
  contrastRatio(computeLuminance(INK), computeLuminance(colour)) >=
  contrastRatio(computeLuminance(CHALK), computeLuminance(colour))
    ? INK
    : CHALK;

/**
 * A clip's blocks with a headline above the picture and a line below it in the place of all that lay on bands, in the
 * colour that can be read on the bands. Lines without words are left out.
 */
export function withBandWords(
  blocks: readonly TextBlock[],
  { above, below }: BandWords,
  colour: string,
): TextBlock[] {
  const style = { ...PLAIN_STYLE, colour: chooseReadableColour(colour), outline: null };
  const headline = { on: 'above', box: ABOVE, style: { ...style, size: 0.09 } } as const;
  const tag = { on: 'below', box: BELOW, style: { ...style, weight: 400 } } as const;
  const made = blocks.filter((block) => !isOnBand(block));
  const add = (lines: readonly BandLine[], look: typeof headline | typeof tag) => {
    for (const { text, spans } of lines.filter((line) => line.text.trim() !== '')) {
      made.push({ ...plainBlock(freshBlockId(blocks.concat(made)), text), ...look, spans, fitted: true });
    }
  };
  add(above, headline);
  add(below, tag);
  return made;
}

/** Tells whether a block belongs on a band. */
export const isOnBand = ({ on }: TextBlock): boolean => on === 'above' || on === 'below';
