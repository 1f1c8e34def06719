import { sum } from '../../src/core/figures/sum';
import { canFeedDecoder } from '../../src/core/rate/buffer';
import type { SegmentBits } from './encoder-args';

/** A segment, and the whole, may be off what they were to come to by this much, as a share of it. */
const WITHIN = 0.015;

/** A segment of a second pass: how long it is, what it was to come to, what it was asked for, and what it came to. */
export interface EncodedSegment {
  seconds: number;
  /** Video bits a second. */
  share: number;
  asked: SegmentBits;
  /** Bits of each of its pictures, in the order of decoding. */
  pictures: readonly number[];
}

/**
 * Chooses new bitrates for segments that have to be encoded again: those that keep the whole from its target,
 * and those that exceed the maximum rate because VBV was off.
 * @param maxBitrate the greatest rate, in bits a second.
 * @returns one for each segment, null where it stays.
 */
export function retargetSegments(
  segments: readonly EncodedSegment[],
  maxBitrate: number,
): (SegmentBits | null)[] {
  const wanted = sum(segments.map(({ share, seconds }) => share * seconds));
  const off = sum(segments.map(({ pictures }) => sum(pictures))) / wanted - 1;
  return segments.map(({ seconds, share, asked, pictures }) => {
    const own = sum(pictures) / (share * seconds);
    const isOff = Math.abs(off) > WITHIN && (own - 1) * Math.sign(off) > WITHIN / 2;
    const isOver = !asked.held && !canFeedDecoder(pictures, pictures.length / seconds, maxBitrate);
    const bits = isOff ? Math.min(maxBitrate, asked.bits / own) : asked.bits;
    return isOver || bits !== asked.bits ? { bits, held: asked.held || isOver } : null;
  });
}
