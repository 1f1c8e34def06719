import { LEAST_QUANTISER, MOST_QUANTISER } from '../../src/core/rate/encoding';

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
const [LEAST_HALVES, MOST_HALVES] = [2, 12];

/** The quantiser that comes to a rate, by what others came to. */
export function chooseQuantiser(bits: number, tried: readonly TriedQuantiser[]): number {
  const sorted = [...tried].sort((a, b) => a.came - b.came);
  const above = sorted.find(({ came }) => came >= bits);
  const below = sorted.filter(({ came }) => came < bits).pop();
  if (above && below) {
    const share = Math.log(bits / below.came) / Math.log(above.came / below.came);
    return held(below.quantiser + share * (above.quantiser - below.quantiser));
  }
  const near = above ?? below;
  if (!near) return FIRST;
  const beyond = above ? sorted[1] : sorted[sorted.length - 2];
  const slope = beyond ? (beyond.quantiser - near.quantiser) / Math.log2(near.came / beyond.came) : HALVES;
  const halves = Math.min(MOST_HALVES, Math.max(LEAST_HALVES, Number.isFinite(slope) ? slope : HALVES));
  return held(near.quantiser - halves * Math.log2(bits / near.came));
}

const held = (quantiser: number): number =>
  Number(Math.min(MOST_QUANTISER, Math.max(LEAST_QUANTISER, quantiser)).toFixed(2));
