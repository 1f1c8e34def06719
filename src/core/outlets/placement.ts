import { z } from 'zod';
import {
  boundedInt,
  boundedNumber,
  byteCount,
  count,
  MAX_BITRATE,
  MAX_COUNT,
  MAX_MEASURE,
} from '../figures/bounded';
import { frameRateSchema } from '../time/frame-rate';
import { audienceSchema } from './audience';
import { takenSizesSchema } from './taken-sizes';

const name = z.string().trim().min(1).max(60);
const seconds = boundedNumber(0, 86_400).positive();
const bits = boundedInt(1, MAX_BITRATE);
const limit = boundedInt(1, MAX_COUNT);
const share = boundedNumber(0, 1);

/** Containers and codecs by their short names. */
export const CONTAINERS = ['mp4', 'mov', 'webm'] as const;
export const VIDEO_CODECS = ['avc', 'hevc', 'vp9', 'av1'] as const;
export const AUDIO_CODECS = ['aac', 'opus', 'mp3'] as const;
/** Profiles of H.264. */
export const PROFILES = ['baseline', 'main', 'high'] as const;
/** Devices on which an outlet's own controls lie elsewhere. */
export const DEVICES = ['phone', 'tablet', 'desk'] as const;
export type Device = (typeof DEVICES)[number];

/** How long a clip may be, in seconds; one exactly as long as a limit is legal. */
const lengthSchema = z
  .object({
    least: seconds.nullable(),
    most: seconds,
    /** Where clips do best. */
    best: z.object({ from: seconds, to: seconds }).nullable(),
  })
  .refine(({ least, most }) => least === null || least <= most, {
    error: 'The least length is over the greatest.',
    path: ['least'],
  })
  .refine(({ best }) => best === null || best.from <= best.to, {
    error: 'The best length ends before it begins.',
    path: ['best'],
  });

/** How a placement takes the picture's stream. */
const videoSchema = z.object({
  codecs: z.array(z.enum(VIDEO_CODECS)).min(1),
  /** Of H.264. */
  profiles: z.array(z.enum(PROFILES)).min(1),
  /** Of H.264, times ten: 42 is 4.2. */
  mostLevel: boundedInt(10, 62),
  /** A second. */
  mostBits: bits.nullable(),
  mostRate: frameRateSchema,
  /** Whether interlaced pictures, or pixels that are not square, are taken. */
  interlaced: z.boolean(),
  oblongPixels: z.boolean(),
});

/** How it takes the sound. */
const audioSchema = z
  .object({
    required: z.boolean(),
    codecs: z.array(z.enum(AUDIO_CODECS)).min(1),
    /** Hertz. */
    sampleRates: z.array(limit).min(1),
    /** Where the least is 2, a mono master goes out with the same in both. */
    leastChannels: z.union([z.literal(1), z.literal(2)]),
    mostChannels: boundedInt(1, 8),
    /** A second. */
    leastBits: bits.nullable(),
    /** What the outlet brings every clip to, in LUFS, and how far off a clip may be before it is changed audibly. */
    loudness: z
      .object({ target: boundedNumber(-40, 0), within: boundedNumber(0, MAX_MEASURE).positive() })
      .nullable(),
    /** Most true peak, in dBTP. */
    mostPeak: boundedNumber(-20, 0).nullable(),
  })
  .refine(({ leastChannels, mostChannels }) => leastChannels <= mostChannels, {
    error: 'The fewest channels are over the most.',
    path: ['leastChannels'],
  });

/** What it takes of words; lengths in characters. */
const wordsSchema = z.object({
  title: limit,
  description: z.object({
    most: limit,
    /** What is seen before a reader unfolds it. */
    seen: limit,
  }),
  tags: z.object({
    most: count(),
    characters: limit,
    /** Without this tag the clip is not treated as what the placement is for; without its mark. */
    required: z
      .string()
      .regex(/^[^\s#]+$/, { error: 'A tag is one word without its mark.' })
      .nullable(),
  }),
});

/** A part of the screen that the outlet's own controls cover, 0…1 of the canvas. */
const zoneSchema = z
  .object({ name, x: share, y: share, width: share.positive(), height: share.positive() })
  .refine(({ x, width }) => x + width <= 1 + 1e-9, {
    error: 'The zone reaches past the right edge.',
    path: ['width'],
  })
  .refine(({ y, height }) => y + height <= 1 + 1e-9, {
    error: 'The zone reaches past the bottom edge.',
    path: ['height'],
  });
export type Zone = z.infer<typeof zoneSchema>;

const side = boundedInt(1, 16_384);

/** The limits of one kind of post. */
export const placementSchema = z.object({
  id: z.string().regex(/^[a-z0-9-]{1,40}$/, { error: 'Use small letters, figures and hyphens.' }),
  name,
  sizes: takenSizesSchema,
  /** Whether black bars are taken; where they are not, they keep a post back. */
  bars: z.enum(['refused', 'discouraged']),
  length: lengthSchema,
  mostBytes: byteCount(1),
  containers: z.array(z.enum(CONTAINERS)).min(1),
  video: videoSchema,
  audio: audioSchema,
  words: wordsSchema,
  audiences: z.array(audienceSchema).min(1),
  /** Whether it plays without sound until a viewer asks for it. */
  muted: z.boolean(),
  /** Whether a post must say if it is made for children. */
  childrenStatement: z.boolean(),
  /** A link from a clip to the long video that it came from. */
  longVideo: z.enum(['none', 'welcome', 'needed']),
  zones: z.object({ phone: z.array(zoneSchema), tablet: z.array(zoneSchema), desk: z.array(zoneSchema) }),
  /** The still that is shown before a clip plays. */
  cover: z.object({ width: side, height: side, mostBytes: limit }).nullable(),
  /** What the outlet compresses a clip to, the largest first. */
  ladder: z.array(z.object({ width: side, height: side, bits })),
});
export type Placement = z.infer<typeof placementSchema>;

/** What a placement puts over the picture, on whatever device. */
export const allZones = ({ zones }: Pick<Placement, 'zones'>): Zone[] =>
  DEVICES.flatMap((device) => zones[device]);
