/**
 * Has an H.264 encoder put its parameter sets into the stream (ITU-T H.264, annex B), from where whoever writes the
 * container takes them: the record that some engines hand over beside the stream repeats bytes, and does not decode.
 */
export const PARAMETERS_IN_STREAM = {
  avc: { format: 'annexb' },
} as const satisfies Partial<VideoEncoderConfig>;

/** Kinds of NAL units, and the code that begins one (ITU-T H.264, table 7-1 and B.1). */
const SEQUENCE_PARAMETERS = 7;
const FILLER = 12;
const START = [0, 0, 0, 1];
/** A filler unit's code, its head and its end (7.3.2.7 and 7.3.2.11). */
const MIN_FILLER = START.length + 2;

/**
 * Writes a level into the sequence parameters of a stream (annex B), in place (7.3.2.1.1: the third byte).
 * @param level times ten.
 */
export function setLevel(data: Uint8Array, level: number): void {
  for (let i = 0; i + 6 < data.length; i++) {
    if (data[i] !== 0 || data[i + 1] !== 0 || data[i + 2] !== 1) continue;
    if (((data[i + 3] as number) & 31) === SEQUENCE_PARAMETERS) data[i + 6] = level;
  }
}

/** A picture of a stream (annex B) with bytes behind it that decoders pass over (7.4.2.7). @param bytes that it grows by. */
export function withFiller(data: Uint8Array<ArrayBuffer>, bytes: number): Uint8Array<ArrayBuffer> {
  if (bytes < MIN_FILLER) return data;
  const filled = new Uint8Array(data.length + bytes).fill(0xff);
  filled.set(data);
  filled.set([...START, FILLER], data.length);
  filled[filled.length - 1] = 0x80;
  return filled;
}
