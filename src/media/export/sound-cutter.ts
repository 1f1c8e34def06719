import { AudioSample, type AudioSampleSource } from 'mediabunny';
import { planRuns, type RenderPlan } from '@core/render/plan';
import type { Planes } from '@core/sound/channels';
import { JOIN, Joiner } from '@core/sound/joins';
import { PeakLimiter } from '@core/sound/limiter';
import type { ExportSound } from '@core/render/export-sound';
import { samplesBefore } from '@core/time/frame-rate';
import type { MasterReader } from '../read/master-reader';
import { PIECE, silence, soundFrom } from '../read/master-sound';
import { Pieces } from '../read/sound-pieces';

/**
 * Samples that the AAC encoder puts before the first (initial_padding of FFmpeg's native encoder). The track starts
 * that much before zero, so that the file's edit list cuts them away again.
 */
const ENCODER_DELAY = 1024;

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
  const picture = plan.frames - plan.cardFrames;
  const samplesTo = (frame: number) => samplesBefore(frame, plan.rate, sampleRate);
  const lengths = runs.map(
    ({ start, frames }) => samplesTo(Math.min(picture, start + frames)) - samplesTo(start),
  );
  // An end card is silent.
  const silent = samplesTo(plan.frames) - samplesTo(picture);
  const joiner = new Joiner();
  for (const [i, run] of runs.entries()) {
    const length = lengths[i] ?? 0;
    const over = Math.min(Math.round(JOIN * sampleRate), lengths[i + 1] ?? silent);
    const reader = await readerOf(run.source);
    const first = Math.min(length, Math.round(JOIN * sampleRate));
    const pieces = new Pieces(
      exactly(soundFrom(reader, run.in, length + over, { sampleRate, channels }), length + over, channels),
    );
    yield joiner.begin(await pieces.take(first));
    for (let left = length - first; left > 0; left -= Math.min(PIECE, left)) {
      yield await pieces.take(Math.min(PIECE, left));
    }
    joiner.end(await pieces.take(over));
    await pieces.close();
  }
  if (silent === 0) return;
  const first = Math.min(silent, Math.round(JOIN * sampleRate));
  yield joiner.begin(silence(channels, first));
  yield* quiet(channels, silent - first);
}

async function* quiet(channels: number, length: number): AsyncGenerator<Planes, void, undefined> {
  for (let left = length; left > 0; left -= Math.min(PIECE, left))
    yield silence(channels, Math.min(PIECE, left));
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
  yield* quiet(channels, length - next);
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
