/** What a segment came to when it was looked through at one quality, in bytes, and how long it is, in seconds. */
export interface Looked {
  bytes: number;
  seconds: number;
}

/**
 * Video bits a second for each segment so that all are of one quality and the whole comes to a rate: in proportion to
 * what each took at one quality.
 * @param bits a second of the whole.
 */
export function sharedBits(looked: readonly Looked[], bits: number): number[] {
  const bytes = looked.reduce((sum, { bytes }) => sum + bytes, 0);
  const seconds = looked.reduce((sum, { seconds }) => sum + seconds, 0);
  const whole = bits * seconds;
  return looked.map((one) => (bytes > 0 ? (whole * one.bytes) / bytes / one.seconds : bits));
}
