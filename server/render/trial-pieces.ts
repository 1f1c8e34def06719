import { rename, rm } from 'node:fs/promises';
import path from 'node:path';
import type { GreyPlane } from '../../src/core/picture/likeness';
import type { EncodeSettings, VideoEncodeSettings } from '../../src/core/render/encode-settings';
import type { RenderPlan } from '../../src/core/render/plan';
import { toSeconds } from '../../src/core/time/frame-rate';
import { FrameJudge, type PieceScore } from '../../src/core/trial/frame-judge';
import {
  toPieceSettings,
  type Rendition,
  toRenditionSettings,
  type TrialOrder,
} from '../../src/core/trial/rate-trial';
import { drawSegment } from './draw';
import { EncodeRun } from './encode';
import { encoderArgs, rawInput } from './encoder-args';
import { FrameFile } from './frame-file';
import { greyFrames } from './grey-frames';
import { pictureBytes } from './packet-bytes';

/** Threads of an encoder here: no buffer is held, so that more of them change nothing. */
const THREADS = 2;

/** Outlets have much to do, and take the quick way (common practice, no source). */
const OUTLETS_WAY = ['-preset', 'veryfast'];
/**
 * A quicker way than files are made: a trial asks what a rate gains after the outlet's compression, to which the last per
 * cent of an encoder's skill matters little (`advice.test.ts` holds it to files that were made the slow way). Light that
 * changes is followed all the same, since a film that flickers needs far more bits without.
 */
const QUICK = ['-preset', 'veryfast', '-weightp', '2'];

/** A trial of bit rates: what is tried, and the plans of its pieces. */
export interface RateTrialJob {
  order: TrialOrder;
  plans: RenderPlan[];
  making: EncodeSettings;
  /** Where the bytes of the masters lie, by fingerprint. */
  masters: Readonly<Record<string, string>>;
  /** Where pictures go, and what is made on the way. */
  folder: string;
}

/** The file of the worst frame at a rate: as planned, or as a viewer would get it. */
export const trialPicture = (folder: string, kind: 'planned' | 'viewed', rate: number): string =>
  path.join(folder, `${rate}.${kind}.png`);

/** A piece of the clip: drawn once, encoded at each rate. */
export class PieceTrial {
  readonly raw: string;
  readonly sent: string;
  readonly judge: FrameJudge;

  constructor(
    private readonly job: RateTrialJob,
    private readonly picture: VideoEncodeSettings,
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
    const plain = toPieceSettings(this.picture, this.plan, bits);
    const making: VideoEncodeSettings =
      plain.kind === 'constant' ? plain : { ...plain, kind: 'quality', quantiser };
    const args = [...encoderArgs(making, { bits, held: true }, null, THREADS), ...QUICK];
    await encodeFile(rawInput(this.plan, this.raw), args, this.sent, signal);
    return ((await pictureBytes(this.sent)) * 8) / toSeconds(this.plan.frames, this.plan.rate);
  }

  async drop(): Promise<void> {
    for (const file of [this.raw, this.sent]) await rm(file, { force: true });
  }
}

/**
 * Outlet's compression of all pieces at once: it shares its bits out over a whole clip, and a piece by itself
 * would end before its rate control has settled.
 */
export class OutletTrial {
  private readonly viewed: string;
  private readonly plan: RenderPlan;

  constructor(
    private readonly job: RateTrialJob,
    private readonly picture: VideoEncodeSettings,
    private readonly pieces: readonly PieceTrial[],
  ) {
    this.viewed = path.join(job.folder, 'viewed.mkv');
    this.plan = (pieces[0] as PieceTrial).plan;
  }

  /** Compresses what was sent as the outlet does, and looks at each piece. @param step told after each. */
  async view(rung: Rendition, signal: AbortSignal, step: () => void): Promise<PieceScore[]> {
    const { picture } = toRenditionSettings(rung, this.plan, this.picture);
    const joined = `concat=n=${this.pieces.length}:v=1,scale=${rung.width}:${rung.height}:flags=bicubic`;
    await encodeFile(
      [...this.pieces.flatMap(({ sent }) => ['-i', sent]), '-filter_complex', joined],
      [...encoderArgs(picture, { bits: picture.bits, held: true }, null, THREADS), ...OUTLETS_WAY],
      this.viewed,
      signal,
    );
    const planes = greyFrames(['-i', this.viewed], this.plan);
    const scores: PieceScore[] = [];
    for (const { judge, plan } of this.pieces) {
      const look = judge.begin();
      for (let number = 0; number < plan.frames; number++) {
        const { value: plane } = await planes.next();
        if (plane && judge.isLookedUp(number)) look.see(number, plane);
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
      await new EncodeRun([...input, ...one]).finish();
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
  const encoding = new EncodeRun([...input, ...args, '-an', '-f', 'matroska', to]);
  const stop = () => encoding.stop();
  signal.addEventListener('abort', stop);
  try {
    await encoding.finish();
  } finally {
    signal.removeEventListener('abort', stop);
  }
}
