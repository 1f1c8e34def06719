import { AudioSample, type AudioSampleSource } from 'mediabunny';
import { type PlanRun, planRuns, type RenderPlan } from '@core/render/plan';
import { mapChannels, type Planes } from '@core/sound/channels';
import { Resampler } from '@core/sound/resample';
import type { ExportSound } from '@core/render/export-sound';
import { samplesBefore } from '@core/time/frame-rate';
import type { MasterReader } from '../read/master-reader';

/** Longest piece of silence written at once, in samples. */
const SILENCE_PIECE = 4096;

/**
 * Samples that the AAC encoder puts before the first (initial_padding of FFmpeg's native encoder). The track starts
 * that much before zero, so that the file's edit list cuts them away again.
 */
const ENCODER_DELAY = 1024;

const silence = (channels: number, samples: number): Planes =>
  Array.from({ length: channels }, () => new Float32Array(samples));

/** Opens the reader of one of a plan's sources. */
export type ReaderOf = (source: number) => Promise<MasterReader>;

/**
 * Cuts the masters' sound to a plan, to the sample, and hands it to an encoder. Output sample counts follow the
 * frames exactly; where a master's sound starts late, ends early or has holes, silence fills in.
 * @returns each time how far it is, in seconds of the clip.
 */
export async function* cutSound(
  readerOf: ReaderOf,
  plan: RenderPlan,
  { sampleRate, channels }: ExportSound,
  target: Pick<AudioSampleSource, 'add'>,
): AsyncGenerator<number, void, undefined> {
  const delay = ENCODER_DELAY / sampleRate;
  let next = 0;
  const put = async (planes: Planes) => {
    const sample = sampleOf(planes, sampleRate, next / sampleRate - delay);
    next += sample.numberOfFrames;
    await target.add(sample).finally(() => sample.close());
  };
  for (const run of planRuns(plan)) {
    const end = samplesBefore(run.start + run.frames, plan.rate, sampleRate);
    const reader = await readerOf(run.source);
    for await (const planes of resampled(runSound(reader, run), reader, sampleRate)) {
      const room = end - next;
      const length = planes[0]?.length ?? 0;
      if (room <= 0) break;
      if (length === 0) continue;
      const mapped = mapChannels(planes, channels);
      await put(length > room ? mapped.map((plane) => plane.slice(0, room)) : mapped);
      yield next / sampleRate;
    }
    while (next < end) await put(silence(channels, Math.min(SILENCE_PIECE, end - next)));
    yield next / sampleRate;
  }
}

/** A run's sound at its master's own rate, without a hole, from the run's first sample. */
async function* runSound(reader: MasterReader, run: PlanRun): AsyncGenerator<Planes, void, undefined> {
  const { audio, rate } = reader.source;
  if (!audio) return;
  const { sampleRate, channels } = audio;
  const start = samplesBefore(run.in, rate, sampleRate);
  const end = samplesBefore(run.out, rate, sampleRate);
  let next = start;
  for await (const sample of reader.sound(run.in, run.out) ?? []) {
    try {
      const first = Math.round(reader.soundSeconds(sample) * sampleRate);
      const from = Math.max(next, first);
      const to = Math.min(end, first + sample.numberOfFrames);
      if (to <= from) continue;
      for (; next < from; next += Math.min(SILENCE_PIECE, from - next)) {
        yield silence(channels, Math.min(SILENCE_PIECE, from - next));
      }
      yield samplePlanes(sample, from - first, to - from);
      next = to;
    } finally {
      sample.close();
    }
  }
}

/** Sound at the clip's rate; untouched where it has it already. */
async function* resampled(
  sound: AsyncGenerator<Planes, void, undefined>,
  { source: { audio } }: MasterReader,
  sampleRate: number,
): AsyncGenerator<Planes, void, undefined> {
  if (!audio || audio.sampleRate === sampleRate) return yield* sound;
  const resampler = new Resampler(audio.sampleRate, sampleRate, audio.channels);
  for await (const planes of sound) yield resampler.push(planes);
  yield resampler.finish();
}

/** Samples of a decoded piece as planes. */
export function samplePlanes(sample: AudioSample, frameOffset: number, frameCount: number): Planes {
  return Array.from({ length: sample.numberOfChannels }, (_, planeIndex) => {
    const plane = new Float32Array(frameCount);
    sample.copyTo(plane, { planeIndex, format: 'f32-planar', frameOffset, frameCount });
    return plane;
  });
}

function sampleOf(planes: Planes, sampleRate: number, timestamp: number): AudioSample {
  const length = planes[0]?.length ?? 0;
  const data = new Float32Array(length * planes.length);
  planes.forEach((plane, channel) => data.set(plane, channel * length));
  return new AudioSample({
    data,
    format: 'f32-planar',
    numberOfChannels: planes.length,
    sampleRate,
    timestamp,
  });
}
