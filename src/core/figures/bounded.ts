import { z } from 'zod';

/** Frames of a master or a clip: a day at 29 a second, and more than five hours at 120. */
export const MAX_FRAMES = 2_500_000;
/** Bytes of a file: a petabyte. */
const MAX_BYTES = 1e15;
/** Bits a second. */
export const MAX_BITRATE = 1e12;
/** Pixels of a side. */
export const MAX_SIDE_PIXELS = 65_536;
/** Seconds of a file or a wait, about three years: a long film may have a frame a minute. */
export const MAX_SECONDS = 1e8;
/** Milliseconds since 1970 that a date can hold (ECMA-262, time values). */
const MAX_TIMESTAMP_MS = 8.64e15;
/** Things that are counted or numbered. */
export const MAX_COUNT = 1e9;
/** Shares, places, levels and other figures of either sign. */
export const MAX_MEASURE = 1e15;

/** A number that comes from outside: a lint rule lets a schema have no number without both bounds. */
export const boundedNumber = (min: number, max: number): z.ZodNumber => z.number().min(min).max(max);

/** A whole number that comes from outside. */
export const boundedInt = (min: number, max: number): z.ZodNumber => z.number().int().min(min).max(max);

/** A whole number that comes as text, as in an address. */
export const boundedIntText = (min: number, max: number): z.ZodType<number> =>
  z.coerce.number().int().min(min).max(max);

/** A figure of either sign of which no more is known than that it is of a sane size. */
export const measure = (): z.ZodNumber => boundedNumber(-MAX_MEASURE, MAX_MEASURE);

/** The same as text, as another program prints it. */
export const measureText = (): z.ZodType<number> => z.coerce.number().min(-MAX_MEASURE).max(MAX_MEASURE);

/** The number of a frame, from 0. */
export const frameIndex = (): z.ZodNumber => boundedInt(0, MAX_FRAMES);

/** How many frames there are, at least one. */
export const frameCount = (): z.ZodNumber => boundedInt(1, MAX_FRAMES);

/** How many there are, or which of them, from 0. */
export const boundedCount = (): z.ZodNumber => boundedInt(0, MAX_COUNT);

/** Bytes of a file. @param min 1 where it may not be empty. */
export const byteCount = (min = 0): z.ZodNumber => boundedInt(min, MAX_BYTES);

/** Bits a second. */
export const bitrate = (): z.ZodNumber => boundedNumber(0, MAX_BITRATE);

/** Pixels of a side, over 0. */
export const sidePixels = (): z.ZodNumber => boundedNumber(0, MAX_SIDE_PIXELS).positive();

/** Seconds of either sign. */
export const seconds = (): z.ZodNumber => boundedNumber(-MAX_SECONDS, MAX_SECONDS);

/** A moment, in milliseconds since 1970. */
export const timestampMs = (): z.ZodNumber => boundedNumber(0, MAX_TIMESTAMP_MS);
