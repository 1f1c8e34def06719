import { type FrameRate, rateValue } from '../time/frame-rate';
import type { Size } from '../picture/size';

/** Bounds of the bit rate that a person may set, in bits a second. */
export const MIN_VIDEO_BITRATE = 1_000_000;
export const MAX_VIDEO_BITRATE = 50_000_000;
/** Bits a pixel of a filmed picture that the encoder here needs to look clean (common practice, no source). */
const BITS_PER_PIXEL = 0.16;
/** Never less for a clip of the trade's sizes: 5–6 Mb/s is the low end in use (common practice, no source). */
const FLOOR = 5_000_000;

/** Maxima of a file: its bytes, its video bitrate, and the share of its sound in bits per second. */
interface Caps {
  mostBytes: number;
  mostBits: number | null;
  audioBits: number;
}

/** A bit rate worked out, with what decided it. */
export interface BitRateChoice {
  /** Video bits a second. */
  bits: number;
  reason: 'picture' | 'floor' | 'trial' | 'master' | 'cap';
}

/**
 * The default video bit rate of an export: what a trial advises, or else by picture size and rate and not under 5 Mb/s;
 * never above the master's own (more would hold nothing), and under the outlet's caps.
 *
 * @param masterBits bits a second of the master's video; 0 where it is not known.
 * @param seconds the clip's length. @param advised bits a second; null where nothing was tried.
 */
export function defaultBitRate(
  size: Size,
  rate: FrameRate,
  masterBits: number,
  { mostBytes, mostBits, audioBits }: Caps,
  seconds: number,
  advised: number | null = null,
): BitRateChoice {
  const byPicture = size.width * size.height * rateValue(rate) * BITS_PER_PIXEL;
  const byMaster = masterBits > 0 ? masterBits : Infinity;
  const byCap = Math.min((mostBytes * 8 * 0.95) / Math.max(seconds, 1) - audioBits, mostBits ?? Infinity);
  const clean = advised ?? Math.max(FLOOR, byPicture);
  const wanted = Math.min(clean, byMaster);
  const found = advised !== null ? 'trial' : wanted > byPicture ? 'floor' : 'picture';
  const reason = wanted < clean ? 'master' : found;
  const choice: BitRateChoice = wanted > byCap ? { bits: byCap, reason: 'cap' } : { bits: wanted, reason };
  // What it may not be over, it is not over once it is rounded.
  const round = choice.reason === 'cap' || choice.reason === 'master' ? Math.floor : Math.round;
  return {
    ...choice,
    bits: Math.min(MAX_VIDEO_BITRATE, Math.max(MIN_VIDEO_BITRATE, round(choice.bits / STEP) * STEP)),
  };
}

/** Bit rates are worked out in steps of so many bits a second. */
const STEP = 100_000;
