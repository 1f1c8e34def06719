import type { Source } from '@core/master/source';
import type { ColourFacts } from '@kernel/colour';

/** The colour of a decoded frame: what the source says, with its repairs, and what the frame says where that is silent. */
export const colourOf = (frame: { colorSpace: VideoColorSpaceInit }, { colour }: Source): ColourFacts => ({
  matrix: colour.matrix ?? frame.colorSpace.matrix,
  primaries: colour.primaries ?? frame.colorSpace.primaries,
  transfer: colour.transfer ?? frame.colorSpace.transfer,
  fullRange: colour.fullRange ?? frame.colorSpace.fullRange,
});
