import { TroubleError } from '../../src/core/trouble/trouble';
import { type PieceFound, pointOf } from '../../src/core/trial/frame-judge';
import type { Piece, TrialPoint, TrialResult } from '../../src/core/trial/rate-trial';
import { quantiserFor, type TriedQuantiser } from './quantiser-for';
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
export async function tryRates(
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
  const known: TriedQuantiser[] = [];
  for (const [i, bits] of rates.entries()) {
    const came = await encodedNear(bits, tried, pieces, known, signal);
    const scores = await outlet.view(rung, signal, step);
    const found = scores.map((score, n): PieceFound => ({ came: came[n] as number, score }));
    const point = pointOf(bits, pieces, found);
    points.push(point);
    const worst = pieces.findIndex(({ role }) => role === point.worst.role);
    await outlet.keepPictures(i, worst, point.worst.frame);
  }
  await outlet.drop();
  for (const piece of tried) await piece.drop();
  return { points, compressor: 'ffmpeg', took: (performance.now() - began) / 1000 };
}

/** What a clip comes to may be off what was asked for by this factor, and is tried so often. */
const NEAR = 1.2;
const MOST_TRIES = 5;

/** Encodes all pieces at the quality at which the clip comes to about a rate. @returns what each came to. */
async function encodedNear(
  bits: number,
  tried: readonly PieceTrial[],
  pieces: readonly Piece[],
  known: TriedQuantiser[],
  signal: AbortSignal,
): Promise<number[]> {
  for (let count = 1; ; count++) {
    const quantiser = quantiserFor(bits, known);
    const came: number[] = [];
    for (const piece of tried) {
      if (signal.aborted) throw new TroubleError('cancelled');
      came.push(await piece.encode(bits, quantiser, signal));
    }
    const whole = pieces.reduce((sum, { weight }, n) => sum + weight * (came[n] as number), 0);
    const isKnown = known.some((other) => other.quantiser === quantiser);
    known.push({ quantiser, came: whole });
    const off = Math.max(whole / bits, bits / whole);
    if (off <= NEAR || count >= MOST_TRIES || isKnown) return came;
  }
}
