import { AudioSample, type AudioSampleSource } from 'mediabunny';
import { type PlanRun, planRuns, type RenderPlan } from '@core/render/plan';
import { mapChannels, type Planes } from '@core/sound/channels';
import { JOIN, Joiner } from '@core/sound/joins';
import { PeakLimiter } from '@core/sound/limiter';
import { Resampler } from '@core/sound/resample';
import type { ExportSound } from '@core/render/export-sound';
import { rateValue, samplesBefore } from '@core/time/frame-rate';
import type { MasterReader } from '../read/master-reader';

/** Longest piece that is written at once, in samples. */
const PIECE = 4096;

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
 * Cuts the masters' sound to a plan, to the sample, and hands it to an encoder: it runs as long as the picture, also
 * where that is longer than its range, joins without a click, and stays under the true-peak ceiling. Where a master's
 * sound starts late, ends early or has holes, silence fills in.
 * @returns each time how far it is, in seconds of the clip.
 */
export async function* cutSound(
  readerOf: ReaderOf,
  plan: RenderPlan,
  { sampleRate, channels }: ExportSound,
  target: Pick<AudioSampleSource, 'add'>,
): AsyncGenerator<number, void, undefined> {
  const delay = ENCODER_DELAY / sampleRate;
  const limiter = new PeakLimiter(sampleRate, channels);
  let next = 0;
  const put = async (planes: Planes) => {
    if (!planes[0]?.length) return;
    const sample = sampleOf(planes, sampleRate, next / sampleRate - delay);
    next += sample.numberOfFrames;
    await target.add(sample).finally(() => sample.close());
  };
  for await (const planes of joinedSound(readerOf, plan, { sampleRate, channels })) {
    await put(limiter.push(planes));
    yield next / sampleRate;
  }
  await put(limiter.finish());
  yield next / sampleRate;
}

/** The sound of a plan's runs one after another, exactly as long as its picture. */
async function* joinedSound(
  readerOf: ReaderOf,
  plan: RenderPlan,
  { sampleRate, channels }: ExportSound,
): AsyncGenerator<Planes, void, undefined> {
  const runs = planRuns(plan);
  const lengths = runs.map(
    ({ start, frames }) =>
      samplesBefore(start + frames, plan.rate, sampleRate) - samplesBefore(start, plan.rate, sampleRate),
  );
  const joiner = new Joiner();
  for (const [i, run] of runs.entries()) {
    const length = lengths[i] ?? 0;
    const over = Math.min(Math.round(JOIN * sampleRate), lengths[i + 1] ?? 0);
    const reader = await readerOf(run.source);
    const first = Math.min(length, Math.round(JOIN * sampleRate));
    const pieces = new Pieces(
      exactly(runSound(reader, run, length + over, { sampleRate, channels }), length + over, channels),
    );
    yield joiner.begin(await pieces.take(first));
    for (let left = length - first; left > 0; left -= Math.min(PIECE, left)) {
      yield await pieces.take(Math.min(PIECE, left));
    }
    joiner.end(await pieces.take(over));
    await pieces.close();
  }
}

/** Streamed sound, taken by numbers of samples. */
class Pieces {
  private rest: Planes = [];

  constructor(private readonly sound: AsyncGenerator<Planes, void, undefined>) {}

  async take(count: number): Promise<Planes> {
    while ((this.rest[0]?.length ?? 0) < count) {
      const { value, done } = await this.sound.next();
      if (done) break;
      this.rest = this.rest.length === 0 ? value : this.rest.map((plane, n) => joinedPlane(plane, value[n]));
    }
    const taken = this.rest.map((plane) => plane.slice(0, count));
    this.rest = this.rest.map((plane) => plane.slice(count));
    return taken;
  }

  async close(): Promise<void> {
    await this.sound.return();
  }
}

function joinedPlane(a: Planes[number], b: Planes[number] | undefined): Planes[number] {
  const both = new Float32Array(a.length + (b?.length ?? 0));
  both.set(a);
  if (b) both.set(b, a.length);
  return both;
}

/** Sound with a number of channels and of samples: what is missing is silence. */
async function* exactly(
  sound: AsyncGenerator<Planes, void, undefined>,
  length: number,
  channels: number,
): AsyncGenerator<Planes, void, undefined> {
  let next = 0;
  for await (const planes of sound) {
    const taken = planes.map((plane) => plane.slice(0, length - next));
    next += taken[0]?.length ?? 0;
    yield taken;
    if (next >= length) return;
  }
  for (; next < length; next += Math.min(PIECE, length - next)) {
    yield silence(channels, Math.min(PIECE, length - next));
  }
}

/** A run's sound at the clip's rate, from the run's first sample on, past its last frame where it must be longer. */
async function* runSound(
  reader: MasterReader,
  run: PlanRun,
  length: number,
  { sampleRate, channels }: ExportSound,
): AsyncGenerator<Planes, void, undefined> {
  const { audio, rate } = reader.source;
  if (!audio) return;
  const start = samplesBefore(run.in, rate, audio.sampleRate);
  const fold = (planes: Planes) => mapChannels(planes, channels, audio.codec);
  if (audio.sampleRate === sampleRate) {
    for await (const planes of masterSound(reader, start, start + length)) yield fold(planes);
    return;
  }
  const resampler = new Resampler(audio.sampleRate, sampleRate, channels);
  // The filter hears what comes before the run as well, so that the run does not begin with an edge.
  const lead = resampler.leadOf(start);
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
  reader: MasterReader,
  start: number,
  end: number,
): AsyncGenerator<Planes, void, undefined> {
  const { audio, rate } = reader.source;
  if (!audio) return;
  const { sampleRate, channels } = audio;
  const frameOf = (sample: number) => (sample / sampleRate) * rateValue(rate);
  let next = start;
  for await (const sample of reader.sound(Math.floor(frameOf(start)), Math.ceil(frameOf(end))) ?? []) {
    try {
      const first = Math.round(reader.soundSeconds(sample) * sampleRate);
      const from = Math.max(next, first);
      const to = Math.min(end, first + sample.numberOfFrames);
      if (to <= from) continue;
      for (; next < from; next += Math.min(PIECE, from - next)) {
        yield silence(channels, Math.min(PIECE, from - next));
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
