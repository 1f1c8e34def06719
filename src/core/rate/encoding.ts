import { z } from 'zod';
import { boundedInt, boundedNumber } from '../figures/bounded';
import { MIN_VIDEO_BITRATE, MAX_VIDEO_BITRATE } from './bit-rate';
import { FORMAT_IDS } from './format';

/** Video bits a second that a person may ask for. */
export const videoBitsSchema = boundedInt(MIN_VIDEO_BITRATE, MAX_VIDEO_BITRATE);

/** Bounds of a constant quality: the quantiser of H.264 (ITU-T H.264, 7.4.2.2: 0 to 51). Less is better and larger. */
export const MIN_QUANTISER = 1;
export const MAX_QUANTISER = 51;
/** Bounds of a size to land on, in bytes. */
export const MIN_BYTES = 100_000;
export const MAX_BYTES = 16_000_000_000;

/** How the bits of a picture are shared out. */
const rateSchema = z.discriminatedUnion('kind', [
  /** By canvas, master and outlet. */
  z.object({ kind: z.literal('worked-out') }),
  /** The same in every two seconds. */
  z.object({ kind: z.literal('constant'), bits: videoBitsSchema }),
  /** Less where little moves, more where much does. */
  z.object({ kind: z.literal('variable'), bits: videoBitsSchema, most: videoBitsSchema.nullable() }),
  z.object({
    kind: z.literal('quality'),
    quantiser: boundedInt(MIN_QUANTISER, MAX_QUANTISER),
  }),
  /** Of the whole file, or of each minute of it. */
  z.object({
    kind: z.literal('size'),
    bytes: boundedInt(MIN_BYTES, MAX_BYTES),
    each: z.enum(['file', 'minute']),
  }),
]);
export type Rate = z.infer<typeof rateSchema>;
export type RateKind = Rate['kind'];

/** Profiles of H.264 that are made (ITU-T H.264 Annex A.2). */
export const PROFILES = ['main', 'high'] as const;

/** An unsharp mask over luma. */
export const sharpeningSchema = z.object({
  /** Standard deviation of the blur, in pixels of the canvas. */
  radius: boundedNumber(0.3, 4),
  /** Of the difference to the blur that is added. */
  amount: boundedNumber(0, 2),
  /** Differences up to this are left alone, in codes of 8 bits. */
  threshold: boundedInt(0, 32),
});
export type Sharpening = z.infer<typeof sharpeningSchema>;

/** A touch, so that a clip survives the outlet's compression (common practice, no source). */
export const A_TOUCH: Sharpening = { radius: 0.8, amount: 0.4, threshold: 2 };

/** Encoders of files: this browser, or the render server. */
const MAKERS = ['browser', 'server'] as const;

/** How loud a clip becomes: as it is, as its outlet has clips, or a loudness of one's own in LUFS. */
const loudnessSchema = z.union([z.enum(['kept', 'outlet']), boundedNumber(-40, -5)]);

/** How the file of a canvas is made. */
export const encodingSchema = z.object({
  maker: z.enum(MAKERS),
  /** Null: the first that the outlet takes. */
  format: z.enum(FORMAT_IDS).nullable(),
  rate: rateSchema,
  /** True when the video is encoded in two passes, where the encoder can. */
  twoPasses: z.boolean(),
  /** Of H.264. */
  profile: z.enum(PROFILES),
  /** Of H.264, times ten; null for the lowest that fits. */
  level: boundedInt(30, 52).nullable(),
  /** A key frame at least this often, in seconds. */
  keySeconds: boundedNumber(0.5, 10),
  /** Frames in a row that may be told from both sides, where the maker can. */
  betweenFrames: boundedInt(0, 4),
  sharpening: sharpeningSchema.nullable(),
  sound: z.object({
    /** Bits a second. */
    bits: boundedInt(64_000, 320_000),
    /** Hertz; null for the master's where outlets keep it. */
    sampleRate: z.union([z.literal(44_100), z.literal(48_000)]).nullable(),
    /** Null for as many as the master has, two at most. */
    channels: z.union([z.literal(1), z.literal(2)]).nullable(),
    loudness: loudnessSchema,
  }),
});
export type Encoding = z.infer<typeof encodingSchema>;

/** How a file is made where nothing was chosen. */
export const PLAIN_ENCODING: Encoding = {
  maker: 'browser',
  format: null,
  rate: { kind: 'worked-out' },
  twoPasses: true,
  profile: 'high',
  level: null,
  // Phones step, and outlets cut, at key frames.
  keySeconds: 2,
  betweenFrames: 2,
  sharpening: null,
  // AAC at 128 kb/s or more for stereo (common practice, no source).
  sound: { bits: 160_000, sampleRate: null, channels: null, loudness: 'kept' },
};
