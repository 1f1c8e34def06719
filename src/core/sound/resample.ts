import type { Planes } from './channels';
import { greatestDivisor } from '../figures/greatest-divisor';

/** Zero crossings of the sinc on each side; with the window's roll-off, images stay below −80 dB. */
const LOBES = 24;
/** The pass band ends a little below half of the lower rate. */
const PASS = 0.94;

/** The modified Bessel function of order 0, for the Kaiser window (Oppenheim and Schafer, section 7.5.3). */
function bessel(x: number): number {
  let sum = 1;
  let term = 1;
  for (let k = 1; term > sum * 1e-12; k++) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}

/**
 * Converts sound between sample rates while it streams: a polyphase filter of a Kaiser-windowed sinc. Output sample
 * n is the input at n · from / to, with nothing shifted; what lies before the first and after the last is silence.
 */
export class Resampler {
  private readonly up: number;
  private readonly down: number;
  /** Input samples that one output sample looks at, on each side. */
  readonly reach: number;
  private readonly phases: Float32Array[];
  private waiting: Planes;
  /** Input index of the first held sample. */
  private heldFrom: number;
  private next = 0;

  /** @param from and to in hertz, whole numbers. */
  constructor(from: number, to: number, channels: number) {
    const common = greatestDivisor(from, to);
    this.up = to / common;
    this.down = from / common;
    const scale = PASS * Math.min(1, to / from);
    this.reach = Math.ceil(LOBES / scale);
    this.phases = Array.from({ length: this.up }, (_, phase) => this.taps(phase / this.up, scale));
    this.heldFrom = -this.reach;
    this.waiting = Array.from({ length: channels }, () => new Float32Array(this.reach));
  }

  private taps(fraction: number, scale: number): Float32Array {
    const beta = 9;
    const width = 2 * this.reach;
    const taps = Float32Array.from({ length: width }, (_, t) => {
      const x = t - this.reach + 1 - fraction;
      const position = x / this.reach;
      if (Math.abs(position) >= 1) return 0;
      const window = bessel(beta * Math.sqrt(1 - position * position)) / bessel(beta);
      const angle = Math.PI * x * scale;
      return (angle === 0 ? 1 : Math.sin(angle) / angle) * scale * window;
    });
    const sum = taps.reduce((total, tap) => total + tap, 0);
    return taps.map((tap) => tap / sum);
  }

  /**
   * Sound before a beginning that the filter needs to hear: whole steps of the two rates, so that the beginning falls
   * on an output sample. None of it lies before the first sample of all.
   * @param start input samples that there are before the beginning. @returns input samples to push first, and the
   * output samples that they make, to be dropped.
   */
  computeLead(start: number): { input: number; output: number } {
    const steps = Math.min(Math.ceil(this.reach / this.down), Math.floor(Math.max(0, start) / this.down));
    return { input: steps * this.down, output: steps * this.up };
  }

  /** Takes the next input samples and gives what output they complete. */
  push(planes: Planes): Planes {
    this.waiting = this.waiting.map((plane, channel) => {
      const more = planes[channel] ?? new Float32Array(0);
      const joined = new Float32Array(plane.length + more.length);
      joined.set(plane);
      joined.set(more, plane.length);
      return joined;
    });
    const end = this.heldFrom + (this.waiting[0]?.length ?? 0);
    let count = 0;
    while (this.toInput(this.next + count) + this.reach < end) count += 1;
    const out = this.waiting.map((plane) => this.filtered(plane, count));
    this.next += count;
    const drop = Math.max(0, this.toInput(this.next) - this.reach + 1 - this.heldFrom);
    this.waiting = this.waiting.map((plane) => plane.slice(drop));
    this.heldFrom += drop;
    return out;
  }

  /** Returns the rest once the input has ended. */
  finish(): Planes {
    return this.push(this.waiting.map(() => new Float32Array(this.reach + 1)));
  }

  private toInput(output: number): number {
    return Math.floor((output * this.down) / this.up);
  }

  private filtered(plane: Float32Array, count: number): Float32Array<ArrayBuffer> {
    const out = new Float32Array(count);
    for (let i = 0; i < count; i++) {
      const n = this.next + i;
      const taps = this.phases[(n * this.down) % this.up] as Float32Array;
      const from = this.toInput(n) - this.reach + 1 - this.heldFrom;
      let sum = 0;
      for (let t = 0; t < taps.length; t++) sum += (taps[t] as number) * (plane[from + t] ?? 0);
      out[i] = sum;
    }
    return out;
  }
}
