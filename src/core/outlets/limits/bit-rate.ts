import { boundedInt, MAX_BITRATE } from '../../figures/bounded';
import { bitsLabel } from '../../figures/figures';
import { optionalNumberField } from './field';
import { declareLimit } from './limit';

/** Judges the bit rate of a picture, in bits per second. */
export const judgeBitrate = (
  bitrate: number,
  { video }: { video: { mostBits: number | null } },
): 'over' | null => (video.mostBits !== null && bitrate > video.mostBits ? 'over' : null);

/** Limit on the bit rate of the picture. */
export const bitRateLimit = declareLimit({
  name: 'bit-rate',
  shape: { video: { mostBits: boundedInt(1, MAX_BITRATE).nullable() } },
  plain: { video: { mostBits: null } },
  section: 'File and picture',
  fields: [{ path: 'video.mostBits', label: 'Most video bits', as: optionalNumberField('Mb/s', 1e6) }],
  refuseFile: ({ video }, placement) =>
    judgeBitrate(video.bits, placement) &&
    `The picture has ${bitsLabel(video.bits)}; at most ${bitsLabel(placement.video.mostBits ?? 0)} are taken.`,
});
