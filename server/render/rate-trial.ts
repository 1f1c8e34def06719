import { rename, rm } from 'node:fs/promises';
import path from 'node:path';
import type { GreyPlane } from '../../src/core/picture/likeness';
import type { Making, PictureMaking } from '../../src/core/render/making';
import type { RenderPlan } from '../../src/core/render/plan';
import { secondsOf } from '../../src/core/time/frame-rate';
import { TroubleError } from '../../src/core/trouble/trouble';
import { FrameJudge, type PieceFound, type PieceScore, pointOf } from '../../src/core/trial/frame-judge';
import {
  type Piece,
  pieceMaking,
  type Rung,
  rungMaking,
  type TrialOrder,
  type TrialPoint,
  type TrialResult,
} from '../../src/core/trial/rate-trial';
import { drawSegment } from './draw';
import { Encoding } from './encode';
import { encoderArgs, rawInput } from './encoder-args';
import { FrameFile } from './frame-file';
import { greyFrames } from './grey-frames';
import { pictureBytes } from './packet-bytes';
import { quantiserFor, type TriedQuantiser } from './quantiser-for';

/** Threads of an encoder here: no buffer is held, so that more of them change nothing. */
const THREADS = 2;

/** A trial of bit rates: what is tried, and the plans of its pieces. */
export interface RateTrialJob {
  order: TrialOrder;
  plans: RenderPlan[];
  making: Making;
  /** Where the bytes of the masters lie, by fingerprint. */
  masters: Readonly<Record<string, string>>;
  /** Where pictures go, and what is made on the way. */
  folder: string;
}

/** How far it is. */
export interface TrialProgress {
  done: number;
  total: number;
}

/** The file of the worst frame at a rate: as planned, or as a viewer would get it. */
export const trialPicture = (folder: string, kind: 'planned' | 'viewed', rate: number): string =>
  path.join(folder, `${rate}.${kind}.png`);

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

/** One piece on its way: drawn once, encoded at a rate. */
class PieceTrial {
  readonly raw: string;
  readonly sent: string;
  readonly judge: FrameJudge;

  constructor(
    private readonly job: RateTrialJob,
    private readonly picture: PictureMaking,
    readonly plan: RenderPlan,
    place: number,
  ) {
    const file = (name: string) => path.join(job.folder, `${place}.${name}`);
    [this.raw, this.sent] = [file('raw'), file('sent.mkv')];
    this.judge = new FrameJudge(plan.frames);
  }

  /** Draws it. */
  async draw(signal: AbortSignal): Promise<void> {
    const { plan, judge } = this;
    const { making, masters } = this.job;
    const raw = await FrameFile.create(this.raw);
    let before: GreyPlane | null = null;
    const samples = plan.width * plan.height;
    try {
      await drawSegment(
        { plan, making, masters },
        { start: 0, frames: plan.frames },
        async (frame, number) => {
          if (judge.wants(number)) {
            const luma = { data: frame.slice(0, samples), width: plan.width, height: plan.height };
            judge.show(number, luma, before);
            before = luma;
          }
          await raw.write(frame, number);
        },
        signal,
      );
    } finally {
      await raw.close();
    }
  }

  /**
   * Encodes it at a constant rate, or else at the quality that the whole clip has at a rate: two passes give each second
   * what that takes.
   * @returns video bits a second that it came to.
   */
  async encode(bits: number, quantiser: number, signal: AbortSignal): Promise<number> {
    const plain = pieceMaking(this.picture, this.plan, bits);
    const making: PictureMaking =
      plain.kind === 'constant' ? plain : { ...plain, kind: 'quality', quantiser };
    const args = encoderArgs(making, bits, null, THREADS);
    await encodeFile(rawInput(this.plan, this.raw), args, this.sent, signal);
    return ((await pictureBytes(this.sent)) * 8) / secondsOf(this.plan.frames, this.plan.rate);
  }

  async drop(): Promise<void> {
    for (const file of [this.raw, this.sent]) await rm(file, { force: true });
  }
}

/**
 * What the outlet makes of all pieces, in one go: it shares its bits out over a whole clip, and a piece by itself would
 * be over before it has settled.
 */
class OutletTrial {
  private readonly viewed: string;
  private readonly plan: RenderPlan;

  constructor(
    private readonly job: RateTrialJob,
    private readonly picture: PictureMaking,
    private readonly pieces: readonly PieceTrial[],
  ) {
    this.viewed = path.join(job.folder, 'viewed.mkv');
    this.plan = (pieces[0] as PieceTrial).plan;
  }

  /** Compresses what was sent as the outlet does, and looks at each piece. @param step told after each. */
  async view(rung: Rung, signal: AbortSignal, step: () => void): Promise<PieceScore[]> {
    const { picture } = rungMaking(rung, this.plan, this.picture);
    const joined = `concat=n=${this.pieces.length}:v=1,scale=${rung.width}:${rung.height}:flags=bicubic`;
    await encodeFile(
      [...this.pieces.flatMap(({ sent }) => ['-i', sent]), '-filter_complex', joined],
      // Outlets have much to do, and take the quick way (common practice, no source).
      [...encoderArgs(picture, picture.bits, null, THREADS), '-preset', 'veryfast'],
      this.viewed,
      signal,
    );
    const planes = greyFrames(['-i', this.viewed], this.plan);
    const scores: PieceScore[] = [];
    for (const { judge, plan } of this.pieces) {
      const look = judge.begin();
      for (let number = 0; number < plan.frames; number++) {
        const { value: plane } = await planes.next();
        if (plane && judge.looksAt(number)) look.see(number, plane);
      }
      scores.push(look.score());
      step();
    }
    await planes.return();
    return scores;
  }

  /** Leaves a frame of a piece as pictures. */
  async keepPictures(rate: number, piece: number, frame: number): Promise<void> {
    const { raw, plan } = this.pieces[piece] as PieceTrial;
    const before = this.pieces.slice(0, piece).reduce((sum, { plan: { frames } }) => sum + frames, 0);
    const kinds = {
      planned: { input: rawInput(plan, raw), at: frame },
      viewed: { input: ['-i', this.viewed], at: before + frame },
    };
    for (const [kind, { input, at }] of Object.entries(kinds)) {
      const to = trialPicture(this.job.folder, kind as keyof typeof kinds, rate);
      const size = `${plan.width}:${plan.height}`;
      const filter = `select=eq(n\\,${at}),scale=${size}:in_color_matrix=bt709:in_range=tv,format=rgb24`;
      const one = ['-vf', filter, '-frames:v', '1', '-f', 'image2', `${to}.part.png`];
      await new Encoding([...input, ...one]).finish();
      await rename(`${to}.part.png`, to);
    }
  }

  async drop(): Promise<void> {
    await rm(this.viewed, { force: true });
  }
}

async function encodeFile(
  input: readonly string[],
  args: readonly string[],
  to: string,
  signal: AbortSignal,
): Promise<void> {
  const encoding = new Encoding([...input, ...args, '-an', '-f', 'matroska', to]);
  const stop = () => encoding.stop();
  signal.addEventListener('abort', stop);
  try {
    await encoding.finish();
  } finally {
    signal.removeEventListener('abort', stop);
  }
}
