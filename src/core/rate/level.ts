import { compareRates, type FrameRate, rateValue } from '../time/frame-rate';
import type { Size } from '../picture/size';

/** Row of H.264's level limits. */
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

/** Source: ITU-T H.264 (08/2021) Annex A, table A-1; level 1b, which High has no code of its own for, is left out. */
const LEVELS: readonly Level[] = [
  { idc: 10, maxMbps: 1485, maxFs: 99, maxBr: 64 },
  { idc: 11, maxMbps: 3000, maxFs: 396, maxBr: 192 },
  { idc: 12, maxMbps: 6000, maxFs: 396, maxBr: 384 },
  { idc: 13, maxMbps: 11880, maxFs: 396, maxBr: 768 },
  { idc: 20, maxMbps: 11880, maxFs: 396, maxBr: 2000 },
  { idc: 21, maxMbps: 19800, maxFs: 792, maxBr: 4000 },
  { idc: 22, maxMbps: 20250, maxFs: 1620, maxBr: 4000 },
  { idc: 30, maxMbps: 40500, maxFs: 1620, maxBr: 10000 },
  { idc: 31, maxMbps: 108000, maxFs: 3600, maxBr: 14000 },
  { idc: 32, maxMbps: 216000, maxFs: 5120, maxBr: 20000 },
  { idc: 40, maxMbps: 245760, maxFs: 8192, maxBr: 20000 },
  { idc: 41, maxMbps: 245760, maxFs: 8192, maxBr: 50000 },
  { idc: 42, maxMbps: 522240, maxFs: 8704, maxBr: 50000 },
  { idc: 50, maxMbps: 589824, maxFs: 22080, maxBr: 135000 },
  { idc: 51, maxMbps: 983040, maxFs: 36864, maxBr: 240000 },
  { idc: 52, maxMbps: 2073600, maxFs: 36864, maxBr: 240000 },
  { idc: 60, maxMbps: 4177920, maxFs: 139264, maxBr: 240000 },
  { idc: 61, maxMbps: 8355840, maxFs: 139264, maxBr: 480000 },
  { idc: 62, maxMbps: 16711680, maxFs: 139264, maxBr: 800000 },
];
/** Levels that exports are made in: encoders here know no higher one, and players take all that are lower. */
const LOWEST_MADE = 30;
const HIGHEST_MADE = 52;
/** cpbBrVclFactor of High over Main: 1250 / 1000 (table A-2). */
const HIGH_FACTOR = 1.25;

/**
 * The lowest H.264 level whose limits a High profile stream keeps.
 *
 * @param bitsPerSecond most video bits a second.
 * @returns ten times the level, for instance 42; null when no level is enough.
 */
export function findMinLevel(size: Size, rate: FrameRate, bitsPerSecond: number): number | null {
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

/** The level that an export is made in, or null when none that encoders here know is enough; see {@link findMinLevel}. */
export function findLevel(size: Size, rate: FrameRate, bitsPerSecond: number): number | null {
  const least = findMinLevel(size, rate, bitsPerSecond);
  return least === null || least > HIGHEST_MADE ? null : Math.max(LOWEST_MADE, least);
}

/** As {@link findLevel}. @throws RangeError when none is enough. */
export function lowestLevel(size: Size, rate: FrameRate, bitsPerSecond: number): number {
  const found = findLevel(size, rate, bitsPerSecond);
  if (found === null) {
    throw new RangeError(
      `no H.264 level takes ${size.width}×${size.height} at ${rateValue(rate).toFixed(3)} fps`,
    );
  }
  return found;
}
