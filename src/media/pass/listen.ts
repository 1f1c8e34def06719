import type { AudioSample } from 'mediabunny';
import type { Source } from '@core/master/source';
import type { AnalysisResult, SoundFacts } from '@core/pass/pass';
import { mapChannels } from '@core/sound/channels';
import { LoudnessMeter, toLoudness, STEPS_A_SECOND } from '@core/sound/loudness';
import { TimedMeter } from '@core/sound/timed-meter';
import { TruePeakMeter } from '@core/sound/true-peak';
import { findPauses, Waveform } from '@core/sound/waveform';
import type { MasterReader } from '../read/master-reader';
import { throwIfStopped } from '../worker/serve-task';
import { samplePlanes } from '@render/master-sound';

const toLevel = (level: number): number | null => (Number.isFinite(level) ? level : null);

/** Listens to a master's sound once: loudness, peaks, waveform, pauses. Null where there is none. */
export async function listenToSound(
  reader: MasterReader,
  source: Source,
  signal: AbortSignal,
): Promise<{ facts: SoundFacts; wave: Uint8Array<ArrayBuffer> } | null> {
  const sound = reader.sound(0, source.frames);
  if (!source.audio || !sound) return null;
  const { sampleRate, channels, codec } = source.audio;
  const loudness = new LoudnessMeter(sampleRate, channels);
  const ofClips = new TimedMeter(sampleRate, Math.min(2, channels));
  const peaks = new TruePeakMeter();
  let wave: Waveform | null = null;
  for await (const sample of sound) {
    try {
      throwIfStopped(signal);
      const seconds = reader.soundSeconds(sample);
      wave ??= new Waveform(sampleRate, Math.max(0, seconds));
      // Sound before the first frame is not heard.
      const early = Math.min(sample.numberOfFrames, Math.max(0, Math.round(-seconds * sampleRate)));
      if (early === sample.numberOfFrames) continue;
      const planes = samplePlanes(sample, early, sample.numberOfFrames - early);
      loudness.push(planes);
      const heard = channels > 2 ? mapChannels(planes, 2, codec) : planes;
      ofClips.push(heard, Math.round(seconds * sampleRate) + early);
      peaks.push(planes);
      wave.push(planes);
    } finally {
      sample.close();
    }
  }
  const bytes = wave?.finish() ?? new Uint8Array(0);
  const { truePeak, samplePeak } = peaks.finish();
  return {
    wave: bytes,
    facts: {
      integrated: toLevel(loudness.integrated()),
      loudest: toLevel(loudness.shortTerm().reduce((most, value) => Math.max(most, value), -Infinity)),
      truePeak: toLevel(truePeak),
      samplePeak: toLevel(samplePeak),
      shortTerm: ofClips
        .shortTerm()
        .filter((_, i) => i % STEPS_A_SECOND === 0)
        .map(toLevel),
      steps: ofClips.steps().map((power) => toLevel(toHundredths(toLoudness(power)))),
      pauses: findPauses(bytes),
    },
  };
}

/** Loudness and true peak of the tracks that no clip takes. */
export async function trackLevels(
  reader: MasterReader,
  signal: AbortSignal,
): Promise<AnalysisResult['otherTracks']> {
  const levels: AnalysisResult['otherTracks'] = [];
  for (const sound of await reader.otherSounds()) levels.push(sound && (await measureLevels(sound, signal)));
  return levels;
}

async function measureLevels(
  sound: AsyncGenerator<AudioSample, void, unknown>,
  signal: AbortSignal,
): Promise<AnalysisResult['otherTracks'][number]> {
  let loudness: LoudnessMeter | null = null;
  const peaks = new TruePeakMeter();
  for await (const sample of sound) {
    try {
      throwIfStopped(signal);
      const planes = samplePlanes(sample, 0, sample.numberOfFrames);
      loudness ??= new LoudnessMeter(sample.sampleRate, planes.length);
      loudness.push(planes);
      peaks.push(planes);
    } finally {
      sample.close();
    }
  }
  return {
    integrated: toLevel(loudness?.integrated() ?? -Infinity),
    truePeak: toLevel(peaks.finish().truePeak),
  };
}

/** As exact as the loudness of a tenth of a second can be heard. */
const toHundredths = (value: number): number => Math.round(value * 100) / 100;
