import type { Source } from '@core/master/source';
import type { ColourFacts } from '@kernel/colour';

/** A matrix by name; a frame that an engine made red, green and blue of does not tell what the stream had. */
const matrixOf = (name: string | null | undefined): string | null => (name === 'rgb' ? null : (name ?? null));

/** The colour of a decoded frame: what the source says, with its repairs, and what the frame says where that is silent. */
export const colourOf = (frame: { colorSpace: VideoColorSpaceInit }, { colour }: Source): ColourFacts => ({
  matrix: matrixOf(colour.matrix) ?? matrixOf(frame.colorSpace.matrix),
  primaries: colour.primaries ?? frame.colorSpace.primaries,
  transfer: colour.transfer ?? frame.colorSpace.transfer,
  fullRange: colour.fullRange ?? (frame.colorSpace.matrix === 'rgb' ? false : frame.colorSpace.fullRange),
});
