/** Sample rates that outlets keep; others are converted to 48 kHz (common practice, no source). */
const KEPT_RATES = [44100, 48000];

/** The sample rate of an export, in hertz, for a master's. */
export function exportSampleRate(masterRate: number): number {
  return KEPT_RATES.includes(masterRate) ? masterRate : 48000;
}

/** Channels of an export: mono stays mono, more than two are folded to stereo. */
export function exportChannels(masterChannels: number): number {
  return Math.min(2, masterChannels);
}
