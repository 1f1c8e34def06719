import type { Planes } from './channels';
import { PeakFinder } from './true-peak';

/**
 * Maximum true peak of a clip's sound, in dBTP. Source: EBU R 128 (maximum permitted true peak level, −1
 * dBTP).
 */
export const CEILING = -1;
/** The gain goes down this long before a peak, and waits for it, in seconds. */
const AHEAD = 0.005;
/** It comes back by this time constant, in seconds. */
const RELEASE = 0.08;
/** Changing the gain bends what lies between the samples: this much is kept free, in decibels. */
const MARGIN = 0.1;

/**
 * Holds sound under a true-peak ceiling while it streams, all channels alike, by a gain that looks ahead. What stays
 * under the ceiling passes bit for bit. The sound comes out later than it goes in, and as long as it was.
 */
export class PeakLimiter {
  private readonly ceiling: number;
  private readonly ahead: number;
  private readonly release: number;
  private readonly finder: PeakFinder;
  /** Sound whose peaks are known and that is not out yet, with the gain that each sample asks for. */
  private planes: Planes;
  private wanted: number[] = [];
  /** The least gain asked for ahead, as it comes back; the last {@link ahead} of them, and how many are not 1. */
  private readonly held: Float64Array;
  private heldAt = 0;
  private heldBelow = 0;
  private last = 1;
  private given = 0;

  /** @param sampleRate hertz. @param ceiling in dBTP. */
  constructor(sampleRate: number, channels: number, ceiling = CEILING) {
    this.ceiling = 10 ** ((ceiling - MARGIN) / 20);
    this.ahead = Math.round(AHEAD * sampleRate);
    this.release = 1 - Math.exp(-1 / (RELEASE * sampleRate));
    // A sine may overshoot its samples by 3 dB.
    this.finder = new PeakFinder(channels, this.ceiling / 2);
    this.planes = Array.from({ length: channels }, () => new Float32Array(0));
    this.held = new Float64Array(this.ahead).fill(1);
  }

  /** Samples that were made quieter so far. */
  get limited(): number {
    return this.given;
  }

  /** Takes the next samples and gives those whose gain is settled. */
  push(planes: Planes): Planes {
    return this.take(this.finder.push(planes));
  }

  /** Returns the rest once the sound has ended. */
  finish(): Planes {
    const rest = this.take(this.finder.finish());
    const end = this.out(this.wanted.length);
    return rest.map((plane, channel) => joinPlanes(plane, end[channel] as Planes[number]));
  }

  private take({ planes, peaks }: { planes: Planes; peaks: Float32Array }): Planes {
    this.planes = this.planes.map((plane, channel) => joinPlanes(plane, planes[channel] as Planes[number]));
    for (const peak of peaks) this.wanted.push(peak > this.ceiling ? this.ceiling / peak : 1);
    return this.out(Math.max(0, this.wanted.length - this.ahead));
  }

  private out(count: number): Planes {
    const out = this.planes.map((plane) => plane.slice(0, count));
    const least = this.findMinAhead(count);
    for (let i = 0; i < count; i++) {
      const gain = this.gainAfter(least[i] as number);
      if (gain === 1) continue;
      this.given += 1;
      for (const plane of out) plane[i] = (plane[i] as number) * gain;
    }
    this.planes = this.planes.map((plane) => plane.slice(count));
    this.wanted.splice(0, count);
    return out;
  }

  /** For each of the next samples the least gain that it and those ahead of it ask for. */
  private findMinAhead(count: number): Float64Array {
    const least = new Float64Array(count).fill(1);
    this.wanted.forEach((gain, at) => {
      if (gain === 1) return;
      for (let i = Math.max(0, at - this.ahead + 1); i <= Math.min(at, count - 1); i++) {
        if (gain < (least[i] as number)) least[i] = gain;
      }
    });
    return least;
  }

  /** The mean of the least gains so far, each of which comes back slowly: it has arrived when the peak has. */
  private gainAfter(least: number): number {
    const back = this.last + (1 - this.last) * this.release;
    this.last = Math.min(least, back > 0.9999 ? 1 : back);
    if (this.held[this.heldAt] !== 1) this.heldBelow -= 1;
    this.held[this.heldAt] = this.last;
    if (this.last !== 1) this.heldBelow += 1;
    this.heldAt = (this.heldAt + 1) % this.ahead;
    if (this.heldBelow === 0) return 1;
    let sum = 0;
    for (const gain of this.held) sum += gain;
    return sum / this.ahead;
  }
}

function joinPlanes(a: Planes[number], b: Planes[number]): Planes[number] {
  const both = new Float32Array(a.length + b.length);
  both.set(a);
  both.set(b, a.length);
  return both;
}
