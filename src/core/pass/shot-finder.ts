import type { Boundary } from '../cut/shots';
import { DissolveFinder } from './dissolves';
import { correlation, type Grey, meanDistance, shrinkText, computeSpread } from './grey';
import { matchPictures } from './match';

/** Frames that a decision looks ahead and back. */
const WINDOW = 10;
/** A picture this near to the one before it, in grey levels, needs no closer look. */
const STILL = 3.5;
/** A change from here on may be a cut; see {@link matchPictures}. */
const CUT = 0.46;
/** A leap of this many grey levels, this many times what its neighbours move, may be a cut of less change. */
const LEAP = 12;
const LONE = 8;
const CUT_IF_LONE = 0.28;
/** Frames as restless as this beside a candidate, or sweeping, make a whip pan of it. */
const RESTLESS = 0.36;
/** Pictures that correlate better than this differ in brightness alone. */
const DIMMED = 0.75;
/** Before and after a flash the picture is this much the same. */
const SAME = 0.42;
/** Longest flash, in frames. */
const FLASH = 6;
/** A picture flatter than this, in grey levels, shows nothing: black, white, a plain card. */
const BLANK = 4.5;
/** The middle of a fade is darker or brighter than this, in grey levels, with less than this share of contrast. */
const DARK = 70;
const BRIGHT = 200;
const FADED = 0.4;

/** A frame that differs no more from the one before than its neighbours do, by this factor, is no cut. */
const SPIKE = 1.2;

interface FrameStatistics {
  /** Half-size grey picture. */
  grey: Grey;
  /** Distance from the frame before, in grey levels. */
  distance: number;
  blank: boolean;
  mean: number;
  deviation: number;
  /** Worked out only where it is asked for: it is the dear part. */
  step?: FrameChange;
}

/** How a frame goes over from the one before. */
interface FrameChange {
  change: number;
  /** Moving as a whole by a twentieth of the picture or more. */
  sweeping: boolean;
}

const NO_STEP: FrameChange = { change: 0, sweeping: false };

/**
 * Finds cuts, dissolves and fades in frames that are pushed in order. It holds a few frames, whatever the length of
 * the film. A boundary is the first frame of the new shot; of a dissolve or a fade, its middle.
 */
export class ShotFinder {
  private readonly seen = new Map<number, FrameStatistics>();
  private readonly dissolves = new DissolveFinder();
  private readonly found: Boundary[] = [];
  private count = 0;
  private blankFrom: number | null = null;

  /** @param grey about 160 samples across; every one of the same size. */
  push(grey: Grey): void {
    const n = this.count++;
    const half = shrinkText(grey, Math.max(1, Math.round(grey.width / 80)));
    const before = this.seen.get(n - 1);
    const { mean, deviation } = computeSpread(half);
    const distance = before ? meanDistance(before.grey, half) : 0;
    this.seen.set(n, { grey: half, distance, mean, deviation, blank: deviation < BLANK });
    this.seen.delete(n - 2 * WINDOW - 2);
    this.dissolves.push(shrinkText(half, 2));
    if (n >= WINDOW) this.decide(n - WINDOW);
  }

  /** Lists the boundaries, once every frame was pushed. */
  finish(): Boundary[] {
    for (let n = Math.max(0, this.count - WINDOW); n < this.count; n++) this.decide(n);
    this.endBlank(this.count);
    const cuts = this.found
      .filter((boundary) => boundary.start?.kind === 'cut')
      .map((boundary) => boundary.frame);
    const blends = this.dissolves
      .finish()
      .filter(({ from, to }) => !this.found.some(({ frame }) => frame >= from - 1 && frame <= to + 1))
      .map(({ from, to, confidence }): Boundary => ({
        frame: Math.round((from + to) / 2),
        start: { kind: 'dissolve', confidence, frames: to - from },
      }));
    return [...this.found, ...blends]
      .filter(({ frame, start }) => start?.kind === 'cut' || !cuts.some((cut) => Math.abs(cut - frame) < 3))
      .sort((a, b) => a.frame - b.frame);
  }

  private getSeen(n: number): FrameStatistics | undefined {
    return this.seen.get(n);
  }

  private getStep(n: number): FrameChange {
    const now = this.getSeen(n);
    const before = this.getSeen(n - 1);
    if (!now || !before || now.distance < STILL) return NO_STEP;
    return (now.step ??= stepBetween(before.grey, now));
  }

  private decide(n: number): void {
    const now = this.getSeen(n);
    if (!now) return;
    const confidence = n > 0 ? this.scoreCut(n, now) : 0;
    const cut = confidence > 0;
    if (cut) this.found.push({ frame: n, start: { kind: 'cut', confidence, frames: 0 } });
    if (this.bottomOfFade(n, now)) this.addFade(n, WINDOW);
    if (now.blank) {
      this.blankFrom ??= cut ? -1 : n;
    } else if (this.blankFrom !== null) {
      if (cut) this.blankFrom = -1;
      this.endBlank(n);
    }
  }

  /** The end of blank frames that were come to gradually and left gradually: a fade out and in. */
  private endBlank(n: number): void {
    const from = this.blankFrom;
    this.blankFrom = null;
    if (from === null || from <= 0 || n >= this.count) return;
    // A flash so bright that nothing is seen.
    if (n - from <= FLASH && this.edgeOfFlash(from)) return;
    this.addFade(Math.round((from + n) / 2), n - from + WINDOW);
  }

  /**
   * Tells whether contrast is at its minimum at a frame between two pictures that are neither as dark nor as
   * bright.
   */
  private bottomOfFade(n: number, { deviation, mean }: FrameStatistics): boolean {
    if (mean > DARK && mean < BRIGHT) return false;
    for (let k = 1; k <= WINDOW; k++) {
      if (
        (this.getSeen(n - k)?.deviation ?? 0) < deviation ||
        (this.getSeen(n + k)?.deviation ?? 0) <= deviation
      )
        return false;
    }
    if (mean >= BRIGHT && this.edgeOfFlash(n)) return false;
    const ends = [this.getSeen(n - WINDOW), this.getSeen(n + WINDOW)];
    if (ends.some((end) => !end || end.deviation * FADED < deviation)) return false;
    // Contrast sinks and rises step by step; after a cut to black it does not.
    const near = [-2, -1, 0, 1, 2].map((k) => this.getStep(n + k).change);
    return (
      !this.found.some((boundary) => Math.abs(boundary.frame - n) < WINDOW) && !near.some((cut) => cut > 0.95)
    );
  }

  private addFade(frame: number, frames: number): void {
    const last = this.found[this.found.length - 1];
    if (last?.start?.kind === 'fade' && frame - last.frame < 2 * WINDOW) return;
    this.found.push({ frame, start: { kind: 'fade', confidence: 0.9, frames } });
  }

  /** How sure it is that a shot begins at a frame, 0…1; 0 for no. */
  private scoreCut(n: number, now: FrameStatistics): number {
    const beside = ((this.getSeen(n - 1)?.distance ?? 0) + (this.getSeen(n + 1)?.distance ?? 0)) / 2;
    if (now.distance < STILL || now.distance < SPIKE * beside) return 0;
    const { change } = this.getStep(n);
    // A lone leap in a quiet stretch needs less: plain skies and walls match one another well.
    const lone = now.distance > LEAP && now.distance > LONE * (beside + 0.5);
    if (change < (lone ? CUT_IF_LONE : CUT)) return 0;
    const around = [-4, -3, -2, -1, 1, 2, 3, 4].map((k) => this.getStep(n + k));
    const restless = around.filter((step) => step.change >= RESTLESS || step.sweeping).length;
    if (restless >= 3 || this.edgeOfFlash(n, change)) return 0;
    // The same picture brighter or darker: a fade.
    const before = this.getSeen(n - 1);
    if (before && !now.blank && correlation(before.grey, now.grey) > DIMMED) return 0;
    const sure = 0.5 + Math.max(0, change - CUT) / (2 * (1 - CUT));
    return Math.min(1, sure + (restless === 0 ? 0.15 : 0) + (lone ? 0.15 : 0));
  }

  /** Tells whether a frame begins or ends a flash: the pictures around the flash are the same. */
  private edgeOfFlash(n: number, change = 1): boolean {
    const same = Math.min(SAME, change * 0.6);
    for (let back = 0; back <= 3; back++) {
      for (let on = back === 0 ? 1 : 0; on <= FLASH; on++) {
        const earlier = this.getSeen(n - 1 - back);
        const later = this.getSeen(n + on);
        if (!earlier || !later || earlier.blank || later.blank) continue;
        if (matchPictures(earlier.grey, later.grey).change < same) return true;
      }
    }
    return false;
  }
}

/** How much of a picture is new; pictures without structure are judged by their brightness. */
function stepBetween(before: Grey, { grey, distance }: FrameStatistics): FrameChange {
  const { change, evidence, shift } = matchPictures(before, grey);
  const sweeping = Math.max(Math.abs(shift.x) / grey.width, Math.abs(shift.y) / grey.height) >= 0.05;
  return { change: evidence < 0.08 ? Math.min(1, distance / 50) : change, sweeping };
}
