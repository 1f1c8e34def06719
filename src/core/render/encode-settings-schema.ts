import { z } from 'zod';
import { bitrate, boundedInt, byteCount } from '../figures/bounded';
import { PROFILES } from '../rate/encoding';
import type { VideoEncodeSettings } from './encode-settings';

/** How pictures are encoded, as another process or machine is told. */
export const pictureMakingSchema: z.ZodType<VideoEncodeSettings> = z.object({
  codec: z.enum(['avc', 'vp9', 'av1']),
  kind: z.enum(['constant', 'variable', 'quality', 'size', 'lossless']),
  bits: bitrate(),
  mostBits: bitrate(),
  quantiser: boundedInt(0, 63),
  bytes: byteCount(),
  profile: z.enum(PROFILES),
  level: boundedInt(10, 62).nullable(),
  // Ten seconds at the fastest rate.
  keyFrames: boundedInt(1, 10_000),
  betweenFrames: boundedInt(0, 16),
  twoPasses: z.boolean(),
});
