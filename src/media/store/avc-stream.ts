/**
 * Has an H.264 encoder put its parameter sets into the stream (ITU-T H.264, annex B), from where whoever writes the
 * container takes them: the record that some engines hand over beside the stream repeats bytes, and does not decode.
 */
export const PARAMETERS_IN_STREAM = {
  avc: { format: 'annexb' },
} as const satisfies Partial<VideoEncoderConfig>;
