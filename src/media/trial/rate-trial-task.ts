import type { VideoEncodeSettings } from '@core/render/encode-settings';
import PQueue from 'p-queue';
import { decodeRuns } from '@core/render/decode-runs';
import { plannedFrame, type RenderPlan } from '@core/render/plan';
import { toSeconds } from '@core/time/frame-rate';
import { TroubleError } from '@core/trouble/trouble';
import { FrameJudge, type PieceFound, toTrialPoint } from '@core/trial/frame-judge';
import {
  toPieceSettings,
  toRenditionSettings,
  type TrialOrder,
  type TrialResult,
} from '@core/trial/rate-trial';
import type { GreyPlane } from '@core/picture/likeness';
import type { Size } from '@core/picture/size';
import { FrameRenderer } from '../export/frame-renderer';
import { PictureEncoder } from '../export/picture-encoder';
import { waitWhilePlaying } from '../play/playing-lock';
import { ReaderPool } from '../read/reader-pool';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import { decodeStream, type Stream, StreamTaker } from './decode';
import { readLuma, encodePng, resizeFrame } from './luma';

/** Streams that are compressed again at a time. */
const LANES = 2;

/** A trial for the browser's own encoder. */
export interface RateTrialRequest {
  order: TrialOrder;
  picture: VideoEncodeSettings;
  /** Of the order's pieces. */
  plans: RenderPlan[];
}

/** The worst frame of each rate: as it was planned, and as a viewer would get it. */
interface WorstPictures {
  planned: Blob;
  viewed: Blob;
}

export interface RateTried {
  result: TrialResult;
  pictures: WorstPictures[];
}

/**
 * Makes pieces of a clip at several rates, compresses each once more as the outlet does, with the browser's encoder, and
 * looks at what a viewer would get.
 */
export async function tryRates(
  { order, picture, plans }: RateTrialRequest,
  { report, signal }: TaskContext,
): Promise<RateTried> {
  const began = performance.now();
  const { pieces, rates, rung } = order;
  const readers = new ReaderPool(plans[0]?.sources ?? []);
  const total = pieces.length * (rates.length + 1);
  let done = 0;
  const step = () => report({ stage: 'rate-trial', done: ++done, total });
  const found: PieceFound[][] = rates.map(() => []);
  const worst: { ssim: number; pictures: WorstPictures | null }[] = rates.map(() => ({
    ssim: Infinity,
    pictures: null,
  }));
  report({ stage: 'rate-trial', done, total });
  try {
    for (const plan of plans) {
      const shown = await PieceShown.draw({ plan, picture, rates }, readers, signal);
      try {
        step();
        const one = async (stream: Stream, i: number): Promise<void> => {
          const viewed = await shown.compressedAgain(
            stream,
            toRenditionSettings(rung, plan, picture),
            signal,
          );
          const { score } = viewed;
          found[i]?.push({ score, came: shown.getResult(i) });
          if (score.worst.ssim < (worst[i]?.ssim ?? 0)) {
            const planned = await shown.picture(score.worst.frame);
            worst[i] = {
              ssim: score.worst.ssim,
              pictures: { planned, viewed: await encodePng(viewed.worst) },
            };
          }
          viewed.worst.close();
          step();
        };
        // Codecs run beside this thread: while one is looked at, another is compressed.
        const lanes = new PQueue({ concurrency: LANES });
        await lanes.addAll(shown.streams.map((stream, i) => () => one(stream, i)));
      } finally {
        shown.close();
      }
    }
  } finally {
    readers.close();
  }
  return {
    result: {
      points: rates.map((bits, i) => toTrialPoint(bits, pieces, found[i] as PieceFound[])),
      compressor: 'browser',
      took: (performance.now() - began) / 1000,
    },
    pictures: worst.flatMap(({ pictures }) => pictures ?? []),
  };
}

interface FramePair {
  plan: RenderPlan;
  picture: VideoEncodeSettings;
  rates: readonly number[];
}

/** A piece as it was drawn, once, and encoded at every rate. */
class PieceShown {
  private readonly kept = new Map<number, VideoFrame>();
  private readonly judge: FrameJudge;
  private readonly taken: StreamTaker[];

  private constructor(
    private readonly plan: RenderPlan,
    rates: readonly number[],
  ) {
    this.judge = new FrameJudge(plan.frames);
    this.taken = rates.map(() => new StreamTaker());
  }

  /** @throws TroubleError `damaged`, `encoder-missing`, `cancelled` */
  static async draw(
    { plan, picture, rates }: FramePair,
    readers: ReaderPool,
    signal: AbortSignal,
  ): Promise<PieceShown> {
    const shown = new PieceShown(plan, rates);
    const encoders: PictureEncoder[] = [];
    try {
      for (const [i, bits] of rates.entries()) {
        const making = toPieceSettings(picture, plan, bits);
        const encoder = await PictureEncoder.open(plan, making, shown.taken[i]!.take);
        encoder.ask(making.bits);
        encoders.push(encoder);
      }
      await shown.each(readers, signal, async (frame, number) => {
        const isKey = number % picture.keyFrames === 0;
        for (const encoder of encoders) await encoder.encode(frame, isKey);
      });
      for (const encoder of encoders) await encoder.flush();
      return shown;
    } catch (error) {
      shown.close();
      throw error;
    } finally {
      for (const encoder of encoders) encoder.close();
    }
  }

  get streams(): Stream[] {
    return this.taken.map((taken) => taken.stream());
  }

  /** Video bits a second that the piece came to at a rate. */
  getResult(rate: number): number {
    return ((this.taken[rate]?.bytes ?? 0) * 8) / toSeconds(this.plan.frames, this.plan.rate);
  }

  /** Compresses a stream once more, and looks at what comes of it. */
  async compressedAgain(
    stream: Stream,
    { plan, picture }: ReturnType<typeof toRenditionSettings>,
    signal: AbortSignal,
  ) {
    const again = new StreamTaker();
    const encoder = await PictureEncoder.open(plan, picture, again.take);
    try {
      encoder.ask(picture.bits);
      await decodeStream(
        stream,
        async (frame, n) => {
          const own = inSize(frame, plan);
          await encoder.encode(own, n % picture.keyFrames === 0).finally(() => own.close());
        },
        signal,
      );
      await encoder.flush();
    } finally {
      encoder.close();
    }
    return this.viewed(again.stream(), signal);
  }

  /** A frame of the plan that was looked at, as a picture. */
  picture(frame: number): Promise<Blob> {
    return encodePng(this.kept.get(frame) as VideoFrame);
  }

  close(): void {
    for (const frame of this.kept.values()) frame.close();
    this.kept.clear();
  }

  private async viewed(stream: Stream, signal: AbortSignal) {
    const look = this.judge.begin();
    const worst: VideoFrame[] = [];
    await decodeStream(
      stream,
      async (frame, n) => {
        if (!this.judge.isLookedUp(n)) return;
        const whole = inSize(frame, this.plan);
        const isWorst = look.see(n, await readLuma(whole));
        if (isWorst) worst.splice(0, 1, whole)[0]?.close();
        else whole.close();
      },
      signal,
    );
    const [frame] = worst;
    if (!frame) throw new Error('no frame came of the outlet’s encoder');
    return { score: look.score(), worst: frame };
  }

  /** Draws every frame of the piece, and keeps those that are looked at. */
  private async each(
    readers: ReaderPool,
    signal: AbortSignal,
    take: (frame: VideoFrame, number: number) => Promise<void>,
  ): Promise<void> {
    const { plan, judge } = this;
    const renderer = await FrameRenderer.create(plan);
    let next = 0;
    let before: GreyPlane | null = null;
    for (const run of decodeRuns([plan])) {
      const reader = await readers.of(run.source);
      for await (const { frame, sample } of reader.frames(run.in, run.out)) {
        for (; next < plan.frames; next++) {
          const planned = plannedFrame(plan, next);
          if (planned.masterFrame !== frame) break;
          await waitWhilePlaying(signal);
          throwIfStopped(signal);
          const decoded = sample.toVideoFrame();
          const stamp = Math.round(toSeconds(next, plan.rate) * 1e6);
          const long = Math.round(toSeconds(next + 1, plan.rate) * 1e6) - stamp;
          const drawn = await renderer.draw(decoded, planned, stamp, long).finally(() => decoded.close());
          try {
            if (judge.wants(next)) {
              const luma = await readLuma(drawn);
              if (judge.isLookedUp(next)) {
                judge.show(next, luma, before);
                this.kept.set(next, drawn.clone());
              }
              before = luma;
            }
            await take(drawn, next);
          } finally {
            drawn.close();
          }
        }
      }
    }
    if (next < plan.frames) {
      const file = plan.sources[plannedFrame(plan, next).source]?.fileName ?? '';
      throw new TroubleError('damaged', { file, detail: `frame ${next} of a piece is missing` });
    }
  }
}

/** The same frame in some size; the caller closes both. */
const inSize = (frame: VideoFrame, size: Size): VideoFrame =>
  frame.displayWidth === size.width && frame.displayHeight === size.height
    ? frame.clone()
    : resizeFrame(frame, size);
