import { z } from 'zod';
import {
  bitrate,
  boundedInt,
  byteCount,
  boundedCount,
  frameCount,
  frameIndex,
  MAX_COUNT,
  measure,
  seconds,
} from '../figures/bounded';
import { fingerprintSchema } from './fingerprint';
import { pixelAspectSchema, rotationSchema } from '../picture/orientation';
import { sizeSchema } from '../picture/size';
import { frameRateSchema } from '../time/frame-rate';

/** Facts of a master's sound. */
const audioFactsSchema = z.object({
  codec: z.string(),
  /** Hertz. */
  sampleRate: boundedInt(1, MAX_COUNT),
  channels: boundedInt(1, MAX_COUNT),
  /** Bits a second. */
  bits: bitrate(),
  /** True when the browser that brought it in can decode it. */
  decodable: z.boolean(),
});
export type AudioFacts = z.infer<typeof audioFactsSchema>;

/** How long frames of a varying rate last, in seconds. */
const frameTimesSchema = z.object({ least: measure(), mean: measure(), greatest: measure() });

/** Facts of a file that a job was made from. */
export const masterSchema = z.object({
  /** Names it in its job: the first characters of its fingerprint. */
  id: z.string(),
  /** SHA-256 of the file, in hex; names its bytes in the browser's private file system. */
  fingerprint: fingerprintSchema,
  fileName: z.string(),
  bytes: byteCount(1),
  container: z.string(),
  /** Size in square pixels, after pixel aspect and rotation. */
  picture: sizeSchema,
  /** Samples as the decoder gives them. */
  coded: sizeSchema,
  pixelAspect: pixelAspectSchema,
  /** Degrees clockwise that the picture is turned for display. */
  rotation: rotationSchema,
  /** Mirrored left to right for display, after it is turned. */
  flip: z.boolean(),
  rate: frameRateSchema,
  /** False when frames last unequally; `rate` is then the nearest standard one. */
  constantRate: z.boolean(),
  /** How long frames last, in seconds. */
  frameTimes: frameTimesSchema,
  /** Frames that are shown twice or more, and frames never shown, when the file is read at `rate`. */
  repeated: frameIndex(),
  dropped: frameIndex(),
  frames: frameCount(),
  /** Time stamp of the first frame, in seconds. */
  startSeconds: seconds(),
  video: z.object({
    codec: z.string(),
    /** RFC 6381 string, such as `avc1.640028`. */
    codecString: z.string(),
    /** Bits a second. */
    bits: bitrate(),
    /** Bits of a sample, or null where the stream does not tell. */
    depth: boundedInt(1, MAX_COUNT).nullable(),
    /** True when the stream may hold fields; null where it does not tell. */
    interlaced: z.boolean().nullable(),
  }),
  colour: z.object({
    matrix: z.string().nullable(),
    primaries: z.string().nullable(),
    transfer: z.string().nullable(),
    fullRange: z.boolean().nullable(),
  }),
  /** The sound that is heard, or null for silence. */
  audio: audioFactsSchema.nullable(),
  /** Every sound track of the file. */
  audioTracks: z.array(audioFactsSchema),
  /** Index of the sound track that is heard. */
  soundTrack: boundedCount().nullable(),
});
export type Master = z.infer<typeof masterSchema>;

/** Facts of a file, before its bytes have a fingerprint. */
export type FileFacts = Omit<Master, 'fingerprint' | 'id'>;
const fileFactsSchema = masterSchema.omit({ fingerprint: true, id: true });

/** The name of a fact that lies outside of what a master may have, such as `frames`; null where all are sane. */
export const findAbsurdFact = (facts: FileFacts): string | null =>
  fileFactsSchema.safeParse(facts).error?.issues[0]?.path.join(' ') ?? null;

/** The id of a master with a fingerprint. */
export const toMasterId = (fingerprint: string): string => fingerprint.slice(0, 12);

/** Names of codecs for people, by the short names that the media library uses. */
const CODEC_NAMES: Record<string, string> = {
  avc: 'H.264',
  hevc: 'H.265',
  vp8: 'VP8',
  vp9: 'VP9',
  av1: 'AV1',
  aac: 'AAC',
  opus: 'Opus',
  mp3: 'MP3',
  vorbis: 'Vorbis',
  flac: 'FLAC',
  mpeg4: 'MPEG-4 Part 2',
  mp4v: 'MPEG-4 Part 2',
  prores: 'a 4:2:2 editing codec',
  ac3: 'AC-3',
  eac3: 'E-AC-3',
  dts: 'DTS',
};

/** H.264 profiles by profile_idc (ITU-T H.264 Annex A.2). */
const H264_PROFILES: Record<number, string> = {
  66: 'Baseline',
  77: 'Main',
  88: 'Extended',
  100: 'High',
  110: 'High 10',
  122: 'High 4:2:2',
  244: 'High 4:4:4',
};

/** A codec's name for people. */
export function codecName(codec: string): string {
  return CODEC_NAMES[codec] ?? (codec.startsWith('pcm') ? 'PCM' : codec.toUpperCase());
}

/** Channels for people. */
export const channelWords = (channels: number): string =>
  channels === 1 ? 'mono' : channels === 2 ? 'stereo' : `${channels} channels`;

/** A video codec with its profile where the string tells it: `H.264 High`. */
export function videoCodecName(codec: string, codecString: string): string {
  const match = /^avc[13]\.([0-9a-f]{2})/i.exec(codecString);
  const profile = match?.[1] ? H264_PROFILES[parseInt(match[1], 16)] : undefined;
  return profile ? `${codecName(codec)} ${profile}` : codecName(codec);
}
