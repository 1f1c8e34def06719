import type { RenderPlan } from './plan';

/** Sample rates that outlets keep; others are converted to 48 kHz (common practice, no source). */
const KEPT_RATES = [44100, 48000];

/** The sample rate of an export, in hertz, for a master's. */
export function exportSampleRate(masterRate: number): number {
  return KEPT_RATES.includes(masterRate) ? masterRate : 48000;
}

/** Channels that an export keeps: mono stays mono where the outlet takes it, more than two are folded to stereo. */
export function exportChannels(masterChannels: number): number {
  return Math.min(2, masterChannels);
}

/** The sound of an export. */
export interface ExportSound {
  /** Hertz. */
  sampleRate: number;
  channels: number;
}

/** The sound that a plan's export has: enough for the best of its masters; null when none has any. */
export function exportSound(plan: RenderPlan): ExportSound | null {
  const used = new Set(plan.segments.map((segment) => segment.source));
  const sounds = [...used].flatMap((source) => plan.sources[source]?.audio ?? []);
  const [first] = sounds;
  if (!first) return null;
  const rates = new Set(sounds.map(({ sampleRate }) => exportSampleRate(sampleRate)));
  return {
    sampleRate: rates.size === 1 ? exportSampleRate(first.sampleRate) : 48000,
    channels: Math.max(plan.leastChannels, ...sounds.map(({ channels }) => exportChannels(channels))),
  };
}
