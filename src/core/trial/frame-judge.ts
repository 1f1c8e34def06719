import { banding } from '../picture/banding';
import { type GreyPlane, findMovingDetail, psnr, computeSsims } from '../picture/likeness';
import type { ClipPiece, Score, TrialPoint } from './rate-trial';

/** Number of frames of which one is judged. */
const LOOKED_EVERY = 4;
/** A noise that is not there is told as this, in decibels. */
const MAX_PSNR = 100;

/** A frame of the plan that was looked at. */
interface JudgedFrame {
  plane: GreyPlane;
  /** Windows in which fine detail moves fast. */
  moving: Uint8Array;
  /** Its own banding, for the one frame of which that is measured. */
  banding: number | null;
}

/** Frames of a piece that are looked at. */
export function chooseFrames(frames: number): number[] {
  return Array.from({ length: Math.ceil(frames / LOOKED_EVERY) }, (_, n) =>
    // The second of each, since it has one before it.
    Math.min(frames - 1, n * LOOKED_EVERY + 1),
  );
}

/** Score of a piece at one rate. */
export interface PieceScore extends Score {
  worst: { frame: number; ssim: number };
}

/** Judges what a viewer gets of one piece by the plan's own frames, which it is shown first. */
export class FrameJudge {
  private readonly looked = new Map<number, JudgedFrame>();
  private readonly wanted: ReadonlySet<number>;
  private readonly banded: number;

  constructor(frames: number) {
    const looked = chooseFrames(frames);
    this.wanted = new Set(looked);
    this.banded = looked[Math.floor(looked.length / 2)] ?? 0;
  }

  /** Tells whether a frame is judged, or wanted for the movement in the one after it. */
  wants(frame: number): boolean {
    return this.wanted.has(frame) || this.wanted.has(frame + 1);
  }

  /** Tells whether a viewer's frame is judged. */
  isLookedUp(frame: number): boolean {
    return this.wanted.has(frame);
  }

  /** Takes a frame of the plan. @param before the frame before it; null for the first. */
  show(frame: number, plane: GreyPlane, before: GreyPlane | null): void {
    if (!this.wanted.has(frame)) return;
    this.looked.set(frame, {
      plane,
      moving: findMovingDetail(plane, before ?? plane),
      banding: frame === this.banded ? banding(plane) : null,
    });
  }

  /** Begins to look at what comes of one rate. */
  begin(): PieceLook {
    return new PieceLook(this.looked);
  }
}

/** Scores of one piece at one rate, frame by frame. */
class PieceLook {
  private readonly ssims: { frame: number; ssim: number }[] = [];
  private readonly psnrs: number[] = [];
  private readonly movings: number[] = [];
  private bands = 0;

  constructor(private readonly looked: ReadonlyMap<number, JudgedFrame>) {}

  /** @returns whether it is the worst so far. */
  see(frame: number, plane: GreyPlane): boolean {
    const own = this.looked.get(frame);
    if (!own) throw new RangeError(`frame ${frame} was not shown`);
    const { all: now, some: moving } = computeSsims(own.plane, plane, own.moving);
    const isWorst = this.ssims.every((other) => now < other.ssim);
    this.ssims.push({ frame, ssim: now });
    this.psnrs.push(Math.min(MAX_PSNR, psnr(own.plane, plane)));
    if (!Number.isNaN(moving)) this.movings.push(moving);
    if (own.banding !== null) this.bands = Math.max(0, banding(plane) - own.banding);
    return isWorst;
  }

  /** @throws RangeError where nothing was seen. */
  score(): PieceScore {
    const [first] = this.ssims;
    if (!first) throw new RangeError('no frame was seen');
    return {
      ssim: mean(this.ssims.map(({ ssim }) => ssim)),
      psnr: mean(this.psnrs),
      moving: this.movings.length > 0 ? mean(this.movings) : null,
      banding: this.bands,
      worst: this.ssims.reduce((worst, other) => (other.ssim < worst.ssim ? other : worst), first),
    };
  }
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;

/** Result of one piece at one rate. */
export interface PieceFound {
  score: PieceScore;
  /** Video bits a second that it came to. */
  came: number;
}

/** Summarises a whole clip at one rate from its pieces. @param bits that were asked for. */
export function toTrialPoint(
  bits: number,
  pieces: readonly ClipPiece[],
  found: readonly PieceFound[],
): TrialPoint {
  const each = pieces.map((piece, n) => ({ ...piece, ...(found[n] as PieceFound) }));
  const weighed = (value: (one: (typeof each)[number]) => number): number =>
    each.reduce((sum, one) => sum + one.weight * value(one), 0);
  const moving = each.flatMap(({ score }) => (score.moving === null ? [] : [score.moving]));
  const worst = each.reduce((a, b) => (b.score.worst.ssim < a.score.worst.ssim ? b : a));
  return {
    bits,
    came: Math.round(weighed(({ came }) => came)),
    ssim: weighed(({ score }) => score.ssim),
    psnr: weighed(({ score }) => score.psnr),
    moving: moving.length > 0 ? Math.min(...moving) : null,
    banding: Math.max(...each.map(({ score }) => score.banding)),
    worst: { role: worst.role, ...worst.score.worst },
  };
}
