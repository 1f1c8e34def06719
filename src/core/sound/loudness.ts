import type { Planes } from './channels';

/** Two poles, two zeros. */
interface Biquad {
  b0: number;
  b1: number;
  b2: number;
  a1: number;
  a2: number;
}

/**
 * The K-weighting filters at a sample rate. Source: ITU-R BS.1770-4 Annex 1, tables 1 and 2, which give them at
 * 48 kHz; the analogue filters behind those tables (a 4 dB shelf at 1682 Hz, a high pass at 38 Hz) are taken through
 * the bilinear transform, so that other rates get the same weighting.
 */
export function kWeighting(sampleRate: number): [shelf: Biquad, highPass: Biquad] {
  const k1 = Math.tan((Math.PI * 1681.974450955533) / sampleRate);
  const q1 = 0.7071752369554196;
  const high = 10 ** (3.999843853973347 / 20);
  const band = high ** 0.4996667741545416;
  const a0 = 1 + k1 / q1 + k1 * k1;
  const shelf = {
    b0: (high + (band * k1) / q1 + k1 * k1) / a0,
    b1: (2 * (k1 * k1 - high)) / a0,
    b2: (high - (band * k1) / q1 + k1 * k1) / a0,
    a1: (2 * (k1 * k1 - 1)) / a0,
    a2: (1 - k1 / q1 + k1 * k1) / a0,
  };
  const k2 = Math.tan((Math.PI * 38.13547087602444) / sampleRate);
  const q2 = 0.5003270373238773;
  const c0 = 1 + k2 / q2 + k2 * k2;
  const highPass = { b0: 1, b1: -2, b2: 1, a1: (2 * (k2 * k2 - 1)) / c0, a2: (1 - k2 / q2 + k2 * k2) / c0 };
  return [shelf, highPass];
}

/**
 * Weights of channels by their number, in the order of WAVE: surrounds 1.41, the low channel none (BS.1770-4 table 3). Of
 * more than six the back channels have 1, since only those at the sides are heard louder (annex 3, from memory).
 */
const WEIGHTS: Record<number, number[]> = {
  5: [1, 1, 1, 1.41, 1.41],
  6: [1, 1, 1, 0, 1.41, 1.41],
  7: [1, 1, 1, 0, 1, 1.41, 1.41],
  8: [1, 1, 1, 0, 1, 1, 1.41, 1.41],
};
/** Loudness that the same sound gains on two channels over one, in LU. */
export const TWO_FOR_ONE_LU = 10 * Math.log10(2);

/** Steps in which loudness is taken: a gating block is four, the short term thirty. */
export const STEPS_A_SECOND = 10;
const MOMENTARY = 4;
const SHORT_TERM = 30;
/** Gates (BS.1770-4): blocks below −70 LUFS, then 10 LU below the mean of the rest. */
const ABSOLUTE_GATE = -70;
const RELATIVE_GATE = 10;

export const toLoudness = (power: number): number =>
  power > 0 ? -0.691 + 10 * Math.log10(power) : -Infinity;
export const toPower = (loudness: number): number => 10 ** ((loudness + 0.691) / 10);

/**
 * Loudness by EBU R 128 (ITU-R BS.1770-4), of sound that is pushed in order. It keeps one number each tenth of a
 * second.
 */
export class LoudnessMeter {
  private readonly filters: [Biquad, Biquad];
  private readonly states: Float64Array[];
  private readonly weights: number[];
  private readonly powers: number[] = [];
  private readonly stepLength: number;
  private inStep = 0;
  private power = 0;

  /** @param sampleRate hertz. @param channels in the order of WAVE. */
  constructor(sampleRate: number, channels: number) {
    this.filters = kWeighting(sampleRate);
    this.states = Array.from({ length: channels }, () => new Float64Array(4));
    this.weights = WEIGHTS[channels] ?? Array.from({ length: channels }, () => 1);
    this.stepLength = sampleRate / STEPS_A_SECOND;
  }

  push(planes: Planes): void {
    const length = planes[0]?.length ?? 0;
    for (let sample = 0; sample < length;) {
      const end = Math.min(
        length,
        sample + Math.ceil((this.powers.length + 1) * this.stepLength) - this.samples(),
      );
      planes.forEach((plane, channel) => this.weigh(plane, channel, sample, end));
      this.inStep += end - sample;
      sample = end;
      if (this.samples() >= Math.ceil((this.powers.length + 1) * this.stepLength)) this.endStep();
    }
  }

  private done = 0;
  private samples(): number {
    return this.done + this.inStep;
  }

  private endStep(): void {
    this.powers.push(this.power / this.inStep);
    this.done += this.inStep;
    this.inStep = 0;
    this.power = 0;
  }

  private weigh(plane: Float32Array, channel: number, from: number, to: number): void {
    const weight = this.weights[channel] ?? 0;
    const state = this.states[channel];
    if (!state || weight === 0) return;
    const [f, g] = this.filters;
    let [s1, s2, t1, t2] = state as unknown as [number, number, number, number];
    let sum = 0;
    for (let i = from; i < to; i++) {
      const x = plane[i] as number;
      const y = f.b0 * x + s1;
      s1 = f.b1 * x - f.a1 * y + s2;
      s2 = f.b2 * x - f.a2 * y;
      const z = g.b0 * y + t1;
      t1 = g.b1 * y - g.a1 * z + t2;
      t2 = g.b2 * y - g.a2 * z;
      sum += z * z;
    }
    state.set([s1, s2, t1, t2]);
    this.power += weight * sum;
  }

  /** Loudness of the whole, in LUFS; −Infinity for silence. */
  integrated(): number {
    return integratedLoudness(this.powers);
  }

  /** Weighted power of each tenth of a second. */
  steps(): readonly number[] {
    return this.powers;
  }

  /** Short-term loudness (3 s) each tenth of a second, in LUFS, from the first whole window on. */
  shortTerm(): number[] {
    return this.windows(SHORT_TERM).map(toLoudness);
  }

  /** Momentary loudness (0.4 s) each tenth of a second, in LUFS, from the first whole window on. */
  momentary(): number[] {
    return this.windows(MOMENTARY).map(toLoudness);
  }

  private windows(steps: number): number[] {
    return toWindows(this.powers, steps);
  }
}

/** Means of so many steps in a row, one for each step from the first whole window on. */
function toWindows(powers: readonly number[], steps: number): number[] {
  const out: number[] = [];
  for (let end = steps; end <= powers.length; end++) out.push(mean(powers.slice(end - steps, end)));
  return out;
}

/**
 * Integrated loudness of weighted powers, in LUFS (ITU-R BS.1770-4: blocks of 0.4 s, an absolute and a relative gate).
 * What is shorter than a block is one.
 * @param powers of each tenth of a second. @returns −Infinity for silence.
 */
export function integratedLoudness(powers: readonly number[]): number {
  const blocks = toWindows(powers, Math.min(MOMENTARY, Math.max(1, powers.length)));
  const audible = blocks.filter((power) => toLoudness(power) > ABSOLUTE_GATE);
  if (audible.length === 0) return -Infinity;
  const gate = toPower(toLoudness(mean(audible)) - RELATIVE_GATE);
  return toLoudness(mean(audible.filter((power) => power > gate)));
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;
