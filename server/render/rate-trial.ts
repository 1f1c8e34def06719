import { TroubleError } from '../../src/core/trouble/trouble';
import { type PieceFound, toTrialPoint } from '../../src/core/trial/frame-judge';
import type { TrialPoint, TrialResult } from '../../src/core/trial/rate-trial';
import { RateSearch } from './rate-search';
import { OutletTrial, PieceTrial, type RateTrialJob } from './trial-pieces';

/** How far it is. */
export interface TrialProgress {
  done: number;
  total: number;
}

/**
 * Makes pieces of a clip at several rates as a server makes files, compresses each once more as the outlet does, and
 * looks at what a viewer would get; leaves the worst frame of each rate as pictures.
 */
export async function runRateTrial(
  job: RateTrialJob,
  report: (progress: TrialProgress) => void,
  signal: AbortSignal,
): Promise<TrialResult> {
  const began = performance.now();
  const { order, plans, making } = job;
  const { picture } = making;
  if (!picture) throw new RangeError('sound alone has no rates to try');
  const { pieces, rates, rung } = order;
  const total = pieces.length * (rates.length + 1);
  let done = 0;
  const step = () => report({ done: ++done, total });
  const tried = plans.map((plan, n) => new PieceTrial(job, picture, plan, n));
  const outlet = new OutletTrial(job, picture, tried);
  for (const piece of tried) {
    await piece.draw(signal);
    step();
  }
  const points: TrialPoint[] = [];
  // A constant rate is asked for as such.
  const search = new RateSearch(rates, picture.kind === 'constant' ? 1 : undefined);
  for (;;) {
    const quantiser = search.next();
    if (quantiser === null) break;
    const came = await encodePieces(tried, search.wanted, quantiser, signal);
    const whole = pieces.reduce((sum, { weight }, n) => sum + weight * (came[n] as number), 0);
    const found = search.take(quantiser, whole);
    if (found === null) continue;
    const scores = await outlet.view(rung, signal, step);
    const judged = scores.map((score, n): PieceFound => ({ came: came[n] as number, score }));
    const point = toTrialPoint(rates[found] as number, pieces, judged);
    points[found] = point;
    const worst = pieces.findIndex(({ role }) => role === point.worst.role);
    await outlet.keepPictures(found, worst, point.worst.frame);
  }
  await outlet.drop();
  for (const piece of tried) await piece.drop();
  return { points, compressor: 'ffmpeg', took: (performance.now() - began) / 1000 };
}

/** Encodes all pieces. @returns what each came to, in video bits a second. */
async function encodePieces(
  tried: readonly PieceTrial[],
  bits: number,
  quantiser: number,
  signal: AbortSignal,
): Promise<number[]> {
  const came: number[] = [];
  for (const piece of tried) {
    if (signal.aborted) throw new TroubleError('cancelled');
    came.push(await piece.encode(bits, quantiser, signal));
  }
  return came;
}
