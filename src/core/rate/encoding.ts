import { z } from 'zod';
import { LEAST_VIDEO_BITS, MOST_VIDEO_BITS } from './bit-rate';
import { FORMAT_IDS } from './format';

const bits = z.number().int().min(LEAST_VIDEO_BITS).max(MOST_VIDEO_BITS);

/** Bounds of a constant quality: the quantiser of H.264 (ITU-T H.264, 7.4.2.2: 0 to 51). Less is better and larger. */
export const LEAST_QUANTISER = 1;
export const MOST_QUANTISER = 51;
/** Bounds of a size to land on, in bytes. */
export const LEAST_BYTES = 100_000;
export const MOST_BYTES = 16_000_000_000;

/** How the bits of a picture are shared out. */
const rateSchema = z.discriminatedUnion('kind', [
  /** By canvas, master and outlet. */
  z.object({ kind: z.literal('worked-out') }),
  /** The same in every two seconds. */
  z.object({ kind: z.literal('constant'), bits }),
  /** Less where little moves, more where much does. */
  z.object({ kind: z.literal('variable'), bits, most: bits.nullable() }),
  z.object({
    kind: z.literal('quality'),
    quantiser: z.number().int().min(LEAST_QUANTISER).max(MOST_QUANTISER),
  }),
  /** Of the whole file, or of each minute of it. */
  z.object({
    kind: z.literal('size'),
    bytes: z.number().int().min(LEAST_BYTES).max(MOST_BYTES),
    each: z.enum(['file', 'minute']),
  }),
]);
export type Rate = z.infer<typeof rateSchema>;
export type RateKind = Rate['kind'];

/** An unsharp mask over luma. */
const sharpeningSchema = z.object({
  /** Standard deviation of the blur, in pixels of the canvas. */
  radius: z.number().min(0.3).max(4),
  /** Of the difference to the blur that is added. */
  amount: z.number().min(0).max(2),
  /** Differences up to this are left alone, in codes of 8 bits. */
  threshold: z.number().int().min(0).max(32),
});
export type Sharpening = z.infer<typeof sharpeningSchema>;

/** A touch, so that a clip survives the outlet's compression (common practice, no source). */
export const A_TOUCH: Sharpening = { radius: 0.8, amount: 0.4, threshold: 2 };

/** What makes files: this browser, or the render server. */
const MAKERS = ['browser', 'server'] as const;

/** How loud a clip becomes: as it is, as its outlet has clips, or a loudness of one's own in LUFS. */
const loudnessSchema = z.union([z.enum(['kept', 'outlet']), z.number().min(-40).max(-5)]);

/** How the file of a canvas is made. */
export const encodingSchema = z.object({
  maker: z.enum(MAKERS),
  /** Null: the first that the outlet takes. */
  format: z.enum(FORMAT_IDS).nullable(),
  rate: rateSchema,
  /** Whether the picture is looked through once before it is encoded, where the maker can. */
  twoPasses: z.boolean(),
  /** Of H.264. */
  profile: z.enum(['main', 'high']),
  /** Of H.264, times ten; null for the lowest that fits. */
  level: z.number().int().min(30).max(52).nullable(),
  /** A key frame at least this often, in seconds. */
  keySeconds: z.number().min(0.5).max(10),
  /** Frames in a row that may be told from both sides, where the maker can. */
  betweenFrames: z.number().int().min(0).max(4),
  sharpening: sharpeningSchema.nullable(),
  sound: z.object({
    /** Bits a second. */
    bits: z.number().int().min(64_000).max(320_000),
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
