/** A decoder's buffer holds so many seconds of the greatest rate (common practice, no source). */
export const BUFFER_SECONDS = 2;
/** How full it is when the first picture is taken out, as a share of it (libx264's own default; from memory). */
const FULL_AT_FIRST = 0.9;

/**
 * Tells whether every picture is there when it is decoded: a buffer that fills at the maximum rate never
 * underflows (the leaky bucket of ITU-T H.264, annex C).
 * @param pictures bits of each, in the order of decoding. @param perSecond pictures a second.
 * @param maxBitrate the greatest rate, in bits a second.
 */
export function canFeedDecoder(pictures: readonly number[], perSecond: number, maxBitrate: number): boolean {
  const size = BUFFER_SECONDS * maxBitrate;
  let held = FULL_AT_FIRST * size;
  return pictures.every((bits) => {
    const isThere = bits <= held;
    held = Math.min(size, held - bits + maxBitrate / perSecond);
    return isThere;
  });
}
