import { z } from 'zod';
import { boundedInt } from '../figures/bounded';

/** The fastest rate that is taken, in frames per second: high-speed captures of phones have 960. */
export const MAX_FPS = 1000;
/** Largest term of a rate's fraction: products with frames stay exact. */
const MAX_RATE_TERM = 1_000_000;

/** Frames per second as an exact fraction: 23.976 is 24000/1001. */
export const frameRateSchema = z
  .object({ num: boundedInt(1, MAX_RATE_TERM), den: boundedInt(1, MAX_RATE_TERM) })
  .refine((rate) => rate.num <= MAX_FPS * rate.den, { message: `a rate is at most ${MAX_FPS} fps` });
export type FrameRate = z.infer<typeof frameRateSchema>;

/**
 * Rates of finished edits, slowest first. Source: SMPTE ST 2036-1 and ST 274 picture rates; 48, 100 and 120
 * from the WebCodecs-era practice of game and screen captures (common practice, no source).
 */
export const STANDARD_RATES: readonly FrameRate[] = [
  { num: 24000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 30, den: 1 },
  { num: 48, den: 1 },
  { num: 50, den: 1 },
  { num: 60000, den: 1001 },
  { num: 60, den: 1 },
  { num: 100, den: 1 },
  { num: 120000, den: 1001 },
  { num: 120, den: 1 },
];

/** Frames per second as a plain number, for comparing and showing only. */
export function rateValue(rate: FrameRate): number {
  return rate.num / rate.den;
}

/** Below, at or above zero as `a` is slower than, equal to or faster than `b`; exact. */
export function compareRates(a: FrameRate, b: FrameRate): number {
  return a.num * b.den - b.num * a.den;
}

/** The rate as people write it: `23.976`, `25`, `59.94`. */
export function rateLabel(rate: FrameRate): string {
  return String(Number(rateValue(rate).toFixed(3)));
}

/** When a frame starts, in seconds. @param frame whole frame number, 0 or more. */
export function toSeconds(frame: number, rate: FrameRate): number {
  return (frame * rate.den) / rate.num;
}

/**
 * The frame on screen at a time. A time a hair before a frame's start (containers round) counts as in it.
 * @param seconds 0 or more.
 */
export function toFrame(seconds: number, rate: FrameRate): number {
  return Math.max(0, Math.floor((seconds * rate.num) / rate.den + 1e-4));
}

/**
 * Whole frames in a length in seconds that a limit allows: a clip exactly at the limit is legal.
 * @param seconds 0 or more.
 */
export function countFramesWithin(seconds: number, rate: FrameRate): number {
  return Math.floor((seconds * rate.num) / rate.den + 1e-9);
}

/** Audio samples before a frame starts, rounded to the nearest; exact for every frame of a day. */
export function countSamplesBefore(frame: number, rate: FrameRate, sampleRate: number): number {
  const parts = BigInt(frame) * BigInt(rate.den) * BigInt(sampleRate) * 2n + BigInt(rate.num);
  return Number(parts / (2n * BigInt(rate.num)));
}

/**
 * Frames that a run of frames lasts at another rate: the least number that shows its last frame; exact.
 * @param frames 0 or more.
 */
export function scaleFrames(frames: number, from: FrameRate, to: FrameRate): number {
  return -multiplyByRatio(-frames, to.num * from.den, to.den * from.num);
}

/** The frame of a run at rate `from` that is on screen at frame `n` of rate `to`; exact. @param n 0 or more. */
export function shownFrame(n: number, from: FrameRate, to: FrameRate): number {
  return multiplyByRatio(n, from.num * to.den, from.den * to.num);
}

/** A whole number times a fraction, rounded down; exact, also where a rate's terms are as large as they may be. */
function multiplyByRatio(whole: number, num: number, den: number): number {
  const product = whole * num;
  if (Number.isSafeInteger(product)) return Math.floor(product / den);
  const exact = BigInt(whole) * BigInt(num);
  const quotient = exact / BigInt(den);
  return Number(exact < 0n && exact % BigInt(den) !== 0n ? quotient - 1n : quotient);
}
