import { contrastRatio, luminanceOf } from './contrast';
import { type Box, plainBlock, type TextBlock } from './text-block';
import { PLAIN_STYLE } from './text-style';

/** Words of a banded clip, above its picture and below it. */
export interface BandWords {
  above: string;
  below: string;
}

/** A band's words fill most of it. */
const ABOVE: Box = { x: 0.05, y: 0.1, width: 0.9, height: 0.8 };
const BELOW: Box = { x: 0.05, y: 0.2, width: 0.9, height: 0.6 };
const INK = '#1F2B33';
const CHALK = '#FFFDF7';

/** The one of ink and chalk that stands out from a colour the more. */
export const readableOn = (colour: string): string =>
  contrastRatio(luminanceOf(INK), luminanceOf(colour)) >=
  contrastRatio(luminanceOf(CHALK), luminanceOf(colour))
    ? INK
    : CHALK;

/** A headline above the picture and a line below it, in the colour that can be read on the bands. */
export function bandBlocks(words: BandWords, colour: string, idOf: (n: number) => string): TextBlock[] {
  const style = { ...PLAIN_STYLE, colour: readableOn(colour), outline: null };
  const lines: (TextBlock & { text: string })[] = [
    {
      ...plainBlock(idOf(0), words.above),
      on: 'above',
      box: ABOVE,
      fitted: true,
      style: { ...style, size: 0.09 },
    },
    {
      ...plainBlock(idOf(1), words.below),
      on: 'below',
      box: BELOW,
      fitted: true,
      style: { ...style, weight: 400 },
    },
  ];
  return lines.filter((block) => block.text.trim() !== '');
}
