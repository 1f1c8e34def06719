import type { Placement } from '../outlets/placement';
import { type BitRateChoice, MAX_VIDEO_BITRATE } from '../rate/bit-rate';
import { containerBytes } from '../rate/container-bytes';
import type { Encoding, Rate } from '../rate/encoding';
import { type Format, type FormatId, chooseFormat, FORMATS, isFormatTaken } from '../rate/format';
import { findMinLevel, findLevel } from '../rate/level';
import { codecName } from '../master/master';
import { CEILING } from '../sound/limiter';
import { rateValue, toSeconds } from '../time/frame-rate';
import { type ExportSound, exportSound } from './export-sound';
import type { RenderPlan } from './plan';

/** How the pictures of a file are encoded. */
export interface VideoEncodeSettings {
  codec: NonNullable<Format['video']>;
  kind: Exclude<Rate['kind'], 'worked-out'> | 'lossless';
  /** Video bits a second on average; see {@link hasOpenSize}. */
  bits: number;
  /** The most video bits a second; at a constant rate the same. */
  mostBits: number;
  /** 0 to 51, by the scale of H.264; for a constant quality. */
  quantiser: number;
  /** Of the whole file, for a size to land on. */
  bytes: number;
  profile: Encoding['profile'];
  /** Of H.264, times ten; null for other codecs, and where no level is enough. */
  level: number | null;
  /** Frames from one key frame to the next at most. */
  keyFrames: number;
  betweenFrames: number;
  twoPasses: boolean;
}

/** How the sound of a file is encoded. */
export interface AudioEncodeSettings extends ExportSound {
  codec: Format['audio'];
  /** A second; of what is kept whole, at most. */
  bits: number;
  /** Target loudness of the clip, in LUFS; null where it stays as it is. */
  loudness: number | null;
  /** Maximum true peak, in dBTP. */
  ceiling: number;
}

/** All that whoever makes a file is told, besides its plan. */
export interface EncodeSettings {
  format: FormatId;
  /** True when a person chose the format, whatever the outlet takes. */
  chosen: boolean;
  /** Null for sound alone. */
  picture: VideoEncodeSettings | null;
  /** Null where there is none. */
  sound: AudioEncodeSettings | null;
}

/**
 * A size to land on may ask for less than a rate that a person sets: for this many bits a second at least, and for this
 * many of each pixel, below which encoders cannot go (common practice, no source).
 */
const MIN_SIZED_BITRATE = 50_000;
const MIN_SIZED_PIXEL_BITRATE = 0.004;

/** A constant rate is the same in each of these, in seconds: a group is filled up to it, and so is no longer. */
const CONSTANT_SECONDS = 2;

/** Opus runs at this, in hertz (RFC 6716, 2). */
const OPUS_RATE = 48_000;
/** Bits of a sample that is kept whole. */
const LOSSLESS_DEPTH = 24;

/** Part of a placement that concerns a file. */
type FileLimits = Pick<Placement, 'containers' | 'video' | 'audio'>;

/** A variable rate takes this much of its target at most (common practice, no source: 6 target, 12 most). */
const PEAK = 2;

/**
 * Makes the encode settings of an export.
 * @param choice the bit rate that is worked out for it.
 */
export function toEncodeSettings(
  plan: RenderPlan,
  encoding: Encoding,
  wanted: FileLimits,
  choice: BitRateChoice,
): EncodeSettings {
  const format = encoding.format ?? chooseFormat(wanted);
  const sound = soundMaking(plan, encoding, FORMATS[format], wanted);
  const picture = pictureMaking(plan, encoding, FORMATS[format], sound, wanted, choice);
  return { format, chosen: encoding.format !== null, picture, sound };
}

/** Tells whether the size of a video is only known once it is encoded. */
export const hasOpenSize = ({ kind }: VideoEncodeSettings): boolean =>
  kind === 'quality' || kind === 'lossless';

function soundMaking(
  plan: RenderPlan,
  { sound }: Encoding,
  { audio, lossless }: Format,
  { audio: { loudness, mostPeak } }: FileLimits,
): AudioEncodeSettings | null {
  const facts = exportSound(plan);
  if (!facts) return null;
  const sampleRate = audio === 'opus' ? OPUS_RATE : (sound.sampleRate ?? facts.sampleRate);
  const channels = sound.channels ?? facts.channels;
  const asked = sound.loudness === 'outlet' ? (loudness?.target ?? null) : sound.loudness;
  return {
    codec: audio,
    sampleRate,
    channels,
    bits: lossless ? sampleRate * channels * LOSSLESS_DEPTH : sound.bits,
    loudness: asked === 'kept' ? null : asked,
    ceiling: Math.min(CEILING, mostPeak ?? CEILING),
  };
}

function pictureMaking(
  plan: RenderPlan,
  encoding: Encoding,
  { container, video: codec, lossless = false }: Format,
  sound: AudioEncodeSettings | null,
  { video: { mostBits } }: FileLimits,
  choice: BitRateChoice,
): VideoEncodeSettings | null {
  if (codec === null) return null;
  const { rate } = encoding;
  const beside = bytesBeside(plan, container, sound);
  const bits = computeBits(plan, rate, beside, choice.bits);
  const peak = Math.min(MAX_VIDEO_BITRATE, mostBits ?? Infinity, PEAK * bits);
  const most =
    rate.kind === 'variable' && rate.most !== null ? Math.max(bits, rate.most) : Math.max(bits, peak);
  const made = rate.kind === 'constant' ? bits : most;
  const keySeconds =
    rate.kind === 'constant' ? Math.min(CONSTANT_SECONDS, encoding.keySeconds) : encoding.keySeconds;
  return {
    codec,
    kind: lossless ? 'lossless' : rate.kind === 'worked-out' ? 'variable' : rate.kind,
    bits,
    mostBits: made,
    quantiser: rate.kind === 'quality' ? rate.quantiser : 0,
    bytes: rate.kind === 'size' ? wholeBytes(plan, rate) : 0,
    profile: encoding.profile,
    // A level promises a greatest rate, not a mean (ITU-T H.264 table A-1).
    level: codec === 'avc' && !lossless ? (encoding.level ?? findLevel(plan, plan.rate, made)) : null,
    keyFrames: Math.max(1, Math.round(keySeconds * rateValue(plan.rate))),
    betweenFrames: encoding.betweenFrames,
    twoPasses: encoding.twoPasses,
  };
}

/** Video bits a second that a rate asks for. @param beside bytes of the file that are not its picture's. */
function computeBits(plan: RenderPlan, rate: Rate, beside: number, workedOut: number): number {
  if (rate.kind === 'constant' || rate.kind === 'variable') return rate.bits;
  if (rate.kind !== 'size') return workedOut;
  const bits = ((wholeBytes(plan, rate) - beside) * 8) / toSeconds(plan.frames, plan.rate);
  return Math.min(MAX_VIDEO_BITRATE, Math.max(computeMinSizedBitrate(plan), Math.round(bits)));
}

/** Computes the size of a file with so many video bits per second, in bytes. */
export function fileBytes(
  plan: RenderPlan,
  { format, picture, sound }: EncodeSettings,
  videoBits: number,
): number {
  const { container } = FORMATS[format];
  const seen = picture ? (videoBits * toSeconds(plan.frames, plan.rate)) / 8 : 0;
  return Math.round(seen + bytesBeside(plan, container, sound, picture ? plan.frames : 0));
}

/** The smallest size that a file can be asked to land on, in bytes. */
export const computeMinBytes = (plan: RenderPlan, making: EncodeSettings): number =>
  fileBytes(plan, making, computeMinSizedBitrate(plan));

const computeMinSizedBitrate = ({ width, height, rate }: RenderPlan): number =>
  Math.round(Math.max(MIN_SIZED_BITRATE, MIN_SIZED_PIXEL_BITRATE * width * height * rateValue(rate)));

/** Samples of a packet of sound, about: AAC has 1024 (ISO/IEC 14496-3). */
const PACKET = 1024;

/** Bytes of a file that are not its picture's. */
function bytesBeside(
  plan: RenderPlan,
  container: Format['container'],
  sound: AudioEncodeSettings | null,
  frames = plan.frames,
): number {
  const seconds = toSeconds(plan.frames, plan.rate);
  const packets = (seconds * (sound?.sampleRate ?? 0)) / PACKET;
  return containerBytes(container, frames + packets) + soundBytes(sound, seconds);
}

const soundBytes = (sound: AudioEncodeSettings | null, seconds: number): number =>
  ((sound?.bits ?? 0) * seconds) / 8;

/**
 * Bytes that the sound of a file leaves to its picture: silence takes next to none of what its rate says.
 * @param bytes that the sound came to. @returns less than 0 where it took more.
 */
export const subtractSound = (plan: RenderPlan, { sound }: EncodeSettings, bytes: number): number =>
  Math.round(soundBytes(sound, toSeconds(plan.frames, plan.rate)) - bytes);

function wholeBytes(plan: RenderPlan, { bytes, each }: Extract<Rate, { kind: 'size' }>): number {
  return each === 'file' ? bytes : Math.round((bytes * toSeconds(plan.frames, plan.rate)) / 60);
}

/** Tells whether a level that was forced is too low for what is encoded with it; see {@link findMinLevel}. */
export function isLevelTooLow(plan: RenderPlan, { level, mostBits }: VideoEncodeSettings): boolean {
  const least = findMinLevel(plan, plan.rate, mostBits);
  return level !== null && (least === null || least > level);
}

/**
 * Tells whether a file is one for a placement: one in a format that a person chose for something else is not
 * held to it.
 */
export const isForPlacement = ({ chosen, format }: EncodeSettings, placement: FileLimits): boolean =>
  !chosen || isFormatTaken(placement, format);

/** Says what becomes of the sound, in a few words. */
export function soundLabel(sound: AudioEncodeSettings | null): string {
  if (!sound) return 'none';
  const loud = sound.loudness === null ? '' : `, ${sound.loudness} LUFS`;
  const bits = sound.codec === 'flac' ? '' : ` ${sound.bits / 1000} kb/s`;
  return `${codecName(sound.codec)}${bits}${loud}`;
}
