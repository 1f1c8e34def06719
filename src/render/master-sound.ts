import type { AudioSample } from 'mediabunny';
import { mapChannels, type Planes } from '@core/sound/channels';
import { Resampler } from '@core/sound/resample';
import { rateValue, countSamplesBefore } from '@core/time/frame-rate';
import type { FilmReader } from './film-reader';

/** Longest piece of silence that is made at once, in samples. */
export const PIECE_SAMPLES = 4096;

export const silence = (channels: number, samples: number): Planes =>
  Array.from({ length: channels }, () => new Float32Array(samples));

/**
 * A master's sound from the first sample of a frame on, at a rate and with a number of channels; silence where it has
 * holes.
 * @param length samples at that rate that are wanted; a few more may come.
 */
export async function* readSound(
  reader: FilmReader,
  frame: number,
  length: number,
  { sampleRate, channels }: { sampleRate: number; channels: number },
): AsyncGenerator<Planes, void, undefined> {
  const { audio, rate } = reader.source;
  if (!audio) return;
  const start = countSamplesBefore(frame, rate, audio.sampleRate);
  const fold = (planes: Planes) => mapChannels(planes, channels, audio.codec);
  if (audio.sampleRate === sampleRate) {
    for await (const planes of masterSound(reader, start, start + length)) yield fold(planes);
    return;
  }
  const resampler = new Resampler(audio.sampleRate, sampleRate, channels);
  // The filter hears what comes before the frame as well, so that the sound does not begin with an edge.
  const lead = resampler.computeLead(start);
  const end = start + Math.ceil((length * audio.sampleRate) / sampleRate) + resampler.reach;
  let drop = lead.output;
  for await (const planes of masterSound(reader, start - lead.input, end)) {
    const out = resampler.push(fold(planes));
    const skip = Math.min(drop, out[0]?.length ?? 0);
    drop -= skip;
    yield skip === 0 ? out : out.map((plane) => plane.slice(skip));
  }
  yield resampler.finish().map((plane) => plane.slice(drop));
}

/** A master's sound from one of its samples to another, without a hole. */
async function* masterSound(
  reader: FilmReader,
  start: number,
  end: number,
): AsyncGenerator<Planes, void, undefined> {
  const { audio, rate } = reader.source;
  if (!audio) return;
  const { sampleRate, channels } = audio;
  const toFrame = (sample: number) => (sample / sampleRate) * rateValue(rate);
  let next = start;
  for await (const sample of reader.sound(Math.floor(toFrame(start)), Math.ceil(toFrame(end))) ?? []) {
    try {
      const first = Math.round(reader.soundSeconds(sample) * sampleRate);
      const from = Math.max(next, first);
      const to = Math.min(end, first + sample.numberOfFrames);
      if (to <= from) continue;
      for (; next < from; next += Math.min(PIECE_SAMPLES, from - next)) {
        yield silence(channels, Math.min(PIECE_SAMPLES, from - next));
      }
      yield samplePlanes(sample, from - first, to - from);
      next = to;
    } finally {
      sample.close();
    }
  }
}

/** Samples of a decoded piece as planes. */
export function samplePlanes(sample: AudioSample, frameOffset: number, frameCount: number): Planes {
  return Array.from({ length: sample.numberOfChannels }, (_, planeIndex) => {
    const plane = new Float32Array(frameCount);
    sample.copyTo(plane, { planeIndex, format: 'f32-planar', frameOffset, frameCount });
    return plane;
  });
}
