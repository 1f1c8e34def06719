import { correlation, type Grey, meanDistance, mixDistance, computeSpread } from './grey';
import { matchPictures } from './match';

/** Lengths of dissolves that are looked for, in frames. */
const LENGTHS = [6, 8, 11, 15, 20, 26, 34];
const LONGEST = 34;
/** The two pictures differ by at least this much, in grey levels. */
const APART = 9;
/** A frame of a dissolve is this near to the mix of its ends, as a share of how far the ends are apart. */
const NEAR = 0.2;
/** Ends that are alike but for brightness belong to one shot. */
const ALIKE = 0.72;
/** Ends of one shot that moved match better than this. */
const MOVED = 0.5;
/** Ends flatter than this are black or white: a fade. */
const FLAT = 5;

/** A stretch in which one picture goes over into another. */
export interface Dissolve {
  /** Last frame of the first picture alone, and first of the second alone. */
  from: number;
  to: number;
  /** 0…1. */
  confidence: number;
}

interface Candidate extends Dissolve {
  score: number;
}

/**
 * Finds dissolves: frames that are, all along, the mix of the first and the last in step with time, while these two
 * show different things. Movement alone makes no such mix.
 */
export class DissolveFinder {
  private readonly recent: Grey[] = [];
  private readonly candidates: Candidate[] = [];
  private count = 0;

  /** @param grey about 40 samples across. */
  push(grey: Grey): void {
    this.recent.push(grey);
    if (this.recent.length > LONGEST + 1) this.recent.shift();
    const to = this.count++;
    let best: Candidate | null = null;
    for (const length of LENGTHS) {
      const candidate = this.judge(to, length);
      if (candidate && (!best || candidate.score > best.score)) best = candidate;
    }
    if (best) this.keep(best);
  }

  finish(): Dissolve[] {
    return this.candidates.map(({ from, to, confidence }) => ({ from, to, confidence }));
  }

  private back(frames: number): Grey | undefined {
    return this.recent[this.recent.length - 1 - frames];
  }

  private judge(to: number, length: number): Candidate | null {
    const a = this.back(length);
    const b = this.back(0);
    if (!a || !b) return null;
    const apart = meanDistance(a, b);
    if (apart < APART) return null;
    let worst = 0;
    for (const share of [0.25, 0.5, 0.75]) {
      const k = Math.round(length * share);
      const frame = this.back(length - k);
      if (!frame) return null;
      worst = Math.max(worst, mixDistance(frame, a, b, k / length) / apart);
      if (worst > NEAR) return null;
    }
    if (computeSpread(a).deviation < FLAT || computeSpread(b).deviation < FLAT) return null;
    if (correlation(a, b) > ALIKE || matchPictures(a, b).change < MOVED) return null;
    // The longest window that is still a mix is the dissolve itself: its ends are the furthest apart.
    const score = apart * (1 - worst) * (1 + length / 100);
    return { from: to - length, to, score, confidence: Math.min(1, 0.55 + (1 - worst / NEAR) * 0.45) };
  }

  /** Of windows that overlap only the best stays. */
  private keep(candidate: Candidate): void {
    const last = this.candidates[this.candidates.length - 1];
    if (last && last.to > candidate.from) {
      if (candidate.score > last.score) this.candidates[this.candidates.length - 1] = candidate;
    } else this.candidates.push(candidate);
  }
}
