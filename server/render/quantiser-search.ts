import { MIN_QUANTISER, MAX_QUANTISER } from '../../src/core/rate/encoding';

/** Video bitrate that a quantiser was measured to give, in bits per second. */
export interface TriedQuantiser {
  quantiser: number;
  came: number;
}

/** Where nothing is known. */
const FIRST = 26;
/** So many quantisers halve the rate (six double the step: ITU-T H.264, 8.5; that the rate follows, from memory). */
const HALVES = 6;
/** Films differ in that, but not by more than this. */
const [MIN_HALVES, MAX_HALVES] = [2, 12];

/** The quantiser that comes to a rate, by what others came to. */
export function chooseQuantiser(bits: number, tried: readonly TriedQuantiser[]): number {
  const sorted = [...tried].sort((a, b) => a.came - b.came);
  const above = sorted.find(({ came }) => came >= bits);
  const below = sorted.filter(({ came }) => came < bits).pop();
  if (above && below) {
    const share = Math.log(bits / below.came) / Math.log(above.came / below.came);
    return clampQuantiser(below.quantiser + share * (above.quantiser - below.quantiser));
  }
  const near = above ?? below;
  if (!near) return FIRST;
  const beyond = above ? sorted[1] : sorted[sorted.length - 2];
  const slope = beyond ? (beyond.quantiser - near.quantiser) / Math.log2(near.came / beyond.came) : HALVES;
  const halves = Math.min(MAX_HALVES, Math.max(MIN_HALVES, Number.isFinite(slope) ? slope : HALVES));
  return clampQuantiser(near.quantiser - halves * Math.log2(bits / near.came));
}

const clampQuantiser = (quantiser: number): number =>
  Number(Math.min(MAX_QUANTISER, Math.max(MIN_QUANTISER, quantiser)).toFixed(2));
