import type { Source } from '@core/master/source';
import type { ColourFacts } from '@kernel/colour';

/** Facts of a decoded frame. */
export interface DecodedFacts {
  format: string | null;
  colorSpace: ColourFacts;
}

/** Packed layouts of red, green and blue, as some engines decode to, and whether blue comes first. */
export const PACKED: Readonly<Record<string, boolean>> = { RGBX: false, RGBA: false, BGRX: true, BGRA: true };

/**
 * Finds the colour that the engine took the stream for. Packed pixels no longer tell: an engine that makes
 * them goes by the matrix that the file says, takes what says nothing for BT.709 whatever its size, and takes
 * every range for the limited one.
 */
export function streamColour({ format, colorSpace }: DecodedFacts, { recorded }: Source): ColourFacts {
  if (!((format ?? '') in PACKED)) return colorSpace;
  return { ...recorded, matrix: recorded.matrix ?? 'bt709', fullRange: false };
}

/** The colour of a decoded frame: what the source says, with its repairs, and what the stream says where that is silent. */
export function toColourFacts(frame: DecodedFacts, source: Source): ColourFacts {
  const { colour } = source;
  const stream = streamColour(frame, source);
  return {
    matrix: colour.matrix ?? stream.matrix,
    primaries: colour.primaries ?? stream.primaries,
    transfer: colour.transfer ?? stream.transfer,
    fullRange: colour.fullRange ?? stream.fullRange,
  };
}

/** How a small copy of a source is tagged: in the source's own colour, BT.709 in limited range where it says nothing. */
export const taggedColour = ({ colour }: Source): ColourFacts => ({
  primaries: colour.primaries ?? 'bt709',
  transfer: colour.transfer ?? 'bt709',
  matrix: colour.matrix ?? 'bt709',
  fullRange: colour.fullRange ?? false,
});
