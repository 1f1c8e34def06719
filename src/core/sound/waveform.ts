import type { Planes } from './channels';

/** Peaks a second that a waveform keeps. */
export const PEAKS_A_SECOND = 50;

/** Peaks of a sound, fifty a second: the maximum sample, as a byte of a scale in decibels. */
export class Waveform {
  private readonly peaks: number[] = [];
  private inStep = 0;
  private peak = 0;
  private readonly stepLength: number;
  private done = 0;

  /** @param startSeconds silence before the first sample, over 0 where sound begins after the picture. */
  constructor(sampleRate: number, startSeconds = 0) {
    this.stepLength = sampleRate / PEAKS_A_SECOND;
    for (let i = 0; i < Math.round(startSeconds * PEAKS_A_SECOND); i++) this.peaks.push(0);
    this.done = Math.round(this.peaks.length * this.stepLength);
  }

  push(planes: Planes): void {
    const length = planes[0]?.length ?? 0;
    for (let sample = 0; sample < length; sample++) {
      for (const plane of planes) this.peak = Math.max(this.peak, Math.abs(plane[sample] as number));
      this.inStep += 1;
      if (this.done + this.inStep >= (this.peaks.length + 1) * this.stepLength) {
        this.peaks.push(levelByte(this.peak));
        this.done += this.inStep;
        this.inStep = 0;
        this.peak = 0;
      }
    }
  }

  /** 0 is −60 dBFS and below, 255 is 0 dBFS. */
  finish(): Uint8Array<ArrayBuffer> {
    return Uint8Array.from(this.peaks);
  }
}

const FLOOR = -60;
const levelByte = (peak: number): number =>
  peak <= 0 ? 0 : Math.max(0, Math.min(255, Math.round(((20 * Math.log10(peak) - FLOOR) / -FLOOR) * 255)));

/** A stretch of little sound, in seconds from the start. */
export interface Pause {
  from: number;
  to: number;
}

/** Shortest pause, in seconds: between words it is shorter, between sentences longer (common practice, no source). */
const MIN_PAUSE = 0.2;
/** Sound that rises and falls by less than this has no pauses, in bytes of the waveform (about 8 dB). */
const MIN_SWING = 34;

/** Pauses of a waveform: runs near its floor, by its own quiet and loud levels. */
export function findPauses(peaks: Uint8Array): Pause[] {
  if (peaks.length === 0) return [];
  const sorted = Uint8Array.from(peaks).sort();
  const quantile = (share: number) =>
    sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] as number;
  const [quiet, loud] = [quantile(0.03), quantile(0.9)];
  if (loud - quiet < MIN_SWING) return [];
  const limit = quiet + (loud - quiet) * 0.3;
  const pauses: Pause[] = [];
  let start = -1;
  for (let i = 0; i <= peaks.length; i++) {
    const low = i < peaks.length && (peaks[i] as number) <= limit;
    if (low && start < 0) start = i;
    if (low || start < 0) continue;
    if ((i - start) / PEAKS_A_SECOND >= MIN_PAUSE) {
      pauses.push({ from: start / PEAKS_A_SECOND, to: i / PEAKS_A_SECOND });
    }
    start = -1;
  }
  return pauses;
}

/** Lists the stretches between pauses, in seconds. @param end of the sound. */
export function listStretches(pauses: readonly Pause[], end: number): Pause[] {
  const edges = [0, ...pauses.flatMap(({ from, to }) => [from, to]), end];
  const between = Array.from({ length: edges.length / 2 }, (_, i) => ({
    from: edges[2 * i] as number,
    to: edges[2 * i + 1] as number,
  }));
  return between.filter(({ from, to }) => to > from);
}
