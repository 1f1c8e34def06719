import { planRuns, type RenderPlan } from '@core/render/plan';
import type { Planes } from '@core/sound/channels';
import { JOIN, Joiner } from '@core/sound/joins';
import { PeakLimiter } from '@core/sound/limiter';
import type { ExportSound } from '@core/render/export-sound';
import { countSamplesBefore } from '@core/time/frame-rate';
import type { FilmReader } from './film-reader';
import { PIECE_SAMPLES, silence, readSound } from './master-sound';
import { Pieces } from './sound-pieces';

/** Opens the reader of one of a plan's sources. */
export type ReaderOf = (source: number) => Promise<FilmReader>;

/** How the sound of a clip is to be. */
export interface WantedSound extends ExportSound {
  /** Maximum true peak, in dBTP. */
  ceiling: number;
  /** Factor of its samples. */
  gain: number;
}

/**
 * The masters' sound by a plan, to the sample: it runs as long as the picture, also where that is longer than its
 * range, joins without a click, and stays under the true-peak ceiling. Where a master's sound starts late, ends early or
 * has holes, silence fills in.
 */
export async function* clipSound(
  readerOf: ReaderOf,
  plan: RenderPlan,
  { sampleRate, channels, ceiling, gain }: WantedSound,
): AsyncGenerator<Planes, void, undefined> {
  const limiter = new PeakLimiter(sampleRate, channels, ceiling);
  for await (const planes of joinedSound(readerOf, plan, { sampleRate, channels })) {
    if (gain !== 1) for (const plane of planes) plane.forEach((value, i) => (plane[i] = value * gain));
    yield limiter.push(planes);
  }
  yield limiter.finish();
}

/** The sound of a plan's runs one after another, exactly as long as its picture. */
export async function* joinedSound(
  readerOf: ReaderOf,
  plan: RenderPlan,
  { sampleRate, channels }: ExportSound,
): AsyncGenerator<Planes, void, undefined> {
  const runs = planRuns(plan);
  const picture = plan.frames - plan.cardFrames;
  const toSamples = (frame: number) => countSamplesBefore(frame, plan.rate, sampleRate);
  const lengths = runs.map(
    ({ start, frames }) => toSamples(Math.min(picture, start + frames)) - toSamples(start),
  );
  // An end card is silent.
  const silent = toSamples(plan.frames) - toSamples(picture);
  const joiner = new Joiner();
  for (const [i, run] of runs.entries()) {
    const length = lengths[i] ?? 0;
    const over = Math.min(Math.round(JOIN * sampleRate), lengths[i + 1] ?? silent);
    const reader = await readerOf(run.source);
    const first = Math.min(length, Math.round(JOIN * sampleRate));
    const pieces = new Pieces(
      exactly(readSound(reader, run.in, length + over, { sampleRate, channels }), length + over, channels),
    );
    try {
      yield joiner.begin(await pieces.take(first));
      for (let left = length - first; left > 0; left -= Math.min(PIECE_SAMPLES, left)) {
        yield await pieces.take(Math.min(PIECE_SAMPLES, left));
      }
      joiner.end(await pieces.take(over));
    } finally {
      // Also where whoever listens stops.
      await pieces.close();
    }
  }
  if (silent === 0) return;
  const first = Math.min(silent, Math.round(JOIN * sampleRate));
  yield joiner.begin(silence(channels, first));
  yield* quiet(channels, silent - first);
}

async function* quiet(channels: number, length: number): AsyncGenerator<Planes, void, undefined> {
  for (let left = length; left > 0; left -= Math.min(PIECE_SAMPLES, left))
    yield silence(channels, Math.min(PIECE_SAMPLES, left));
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
