import { compareRates, type FrameRate, rateValue } from '../time/frame-rate';
import type { Size } from '../picture/size';

/** One row of H.264's level limits. */
interface Level {
  /** Ten times the level: 40 is level 4. */
  idc: number;
  /** Macroblocks a second. */
  maxMbps: number;
  /** Macroblocks a frame. */
  maxFs: number;
  /** Bit rate in units of 1000 bit/s for the Main profile; High may take 1.25 times. */
  maxBr: number;
}

/** Source: ITU-T H.264 (08/2021) Annex A, table A-1, levels 3 to 5.2. */
const LEVELS: readonly Level[] = [
  { idc: 30, maxMbps: 40500, maxFs: 1620, maxBr: 10000 },
  { idc: 31, maxMbps: 108000, maxFs: 3600, maxBr: 14000 },
  { idc: 32, maxMbps: 216000, maxFs: 5120, maxBr: 20000 },
  { idc: 40, maxMbps: 245760, maxFs: 8192, maxBr: 20000 },
  { idc: 41, maxMbps: 245760, maxFs: 8192, maxBr: 50000 },
  { idc: 42, maxMbps: 522240, maxFs: 8704, maxBr: 50000 },
  { idc: 50, maxMbps: 589824, maxFs: 22080, maxBr: 135000 },
  { idc: 51, maxMbps: 983040, maxFs: 36864, maxBr: 240000 },
  { idc: 52, maxMbps: 2073600, maxFs: 36864, maxBr: 240000 },
];
/** cpbBrVclFactor of High over Main: 1250 / 1000 (table A-2). */
const HIGH_FACTOR = 1.25;

/**
 * The lowest H.264 level whose limits a High profile stream keeps.
 *
 * @param bitsPerSecond most video bits a second.
 * @returns ten times the level, for instance 42.
 * @throws RangeError when no level to 5.2 is enough.
 */
export function lowestLevel(size: Size, rate: FrameRate, bitsPerSecond: number): number {
  const found = levelFor(size, rate, bitsPerSecond);
  if (found === null) {
    throw new RangeError(
      `no H.264 level takes ${size.width}×${size.height} at ${rateValue(rate).toFixed(3)} fps`,
    );
  }
  return found;
}

/** As {@link lowestLevel}, or null when no level is enough. */
export function levelFor(size: Size, rate: FrameRate, bitsPerSecond: number): number | null {
  const across = Math.ceil(size.width / 16);
  const down = Math.ceil(size.height / 16);
  const frame = across * down;
  const fits = LEVELS.find(
    (level) =>
      frame <= level.maxFs &&
      // A.3.1: neither side may exceed the square root of eight frames' worth of macroblocks.
      Math.max(across, down) <= Math.sqrt(8 * level.maxFs) &&
      compareRates({ num: frame * rate.num, den: rate.den }, { num: level.maxMbps, den: 1 }) <= 0 &&
      bitsPerSecond <= level.maxBr * 1000 * HIGH_FACTOR,
  );
  return fits?.idc ?? null;
}

/** The codec string of a High profile stream (RFC 6381; profile_idc 100, no constraint flags). */
export function highProfileCodec(level: number): string {
  return `avc1.6400${level.toString(16).padStart(2, '0')}`;
}
