import type { AudioEncodeSettings } from '@core/render/encode-settings';
import type { RenderPlan } from '@core/render/plan';
import type { Planes } from '@core/sound/channels';
import { LoudnessMeter } from '@core/sound/loudness';
import { clipSound, joinedSound, type ReaderOf } from './clip-sound';

/** Loudness that is this near is there, in LU. */
const NEAR = 0.2;
/** Holding the peaks makes a clip quieter again: the gain is raised so often at most. */
const ROUNDS = 4;

/**
 * Measures the gain with which a clip has the loudness that is asked for (EBU R 128), with its peaks held. 1
 * where nothing is asked for, or nothing is audible.
 */
export async function loudnessGain(
  readerOf: ReaderOf,
  plan: RenderPlan,
  sound: AudioEncodeSettings,
  signal: AbortSignal,
): Promise<number> {
  const { loudness } = sound;
  if (loudness === null) return 1;
  const measured = await measureLoudness(joinedSound(readerOf, plan, sound), sound, signal);
  if (!Number.isFinite(measured)) return 1;
  let decibels = loudness - measured;
  for (let round = 0; round < ROUNDS; round++) {
    const gain = 10 ** (decibels / 20);
    const held = await measureLoudness(clipSound(readerOf, plan, { ...sound, gain }), sound, signal);
    if (Math.abs(held - loudness) <= NEAR) break;
    decibels += loudness - held;
  }
  return 10 ** (decibels / 20);
}

/** In LUFS. */
async function measureLoudness(
  sound: AsyncGenerator<Planes, void, undefined>,
  { sampleRate, channels }: AudioEncodeSettings,
  signal: AbortSignal,
): Promise<number> {
  const meter = new LoudnessMeter(sampleRate, channels);
  for await (const planes of sound) {
    if (signal.aborted) return NaN;
    meter.push(planes);
  }
  return meter.integrated();
}
