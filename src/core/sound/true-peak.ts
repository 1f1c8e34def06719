import type { Planes } from './channels';

/** Points between two samples that are looked at: BS.1770-4 Annex 2 asks for four times 48 kHz. */
const PHASES = 4;
/** Samples on each side that a point between is made of. */
const REACH = 12;

/** Taps of a windowed sinc for each point between two samples; the first point is the sample itself. */
const TAPS: readonly Float64Array[] = Array.from({ length: PHASES }, (_, phase) => {
  const taps = Float64Array.from({ length: 2 * REACH }, (_, t) => {
    const x = t - REACH + 1 - phase / PHASES;
    const window = Math.cos((Math.PI * x) / (2 * REACH + 2)) ** 2;
    return (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x)) * window;
  });
  const sum = taps.reduce((total, tap) => total + tap, 0);
  return taps.map((tap) => tap / sum);
});

/** Below this the points between two samples cannot matter, as a share of the peak so far: sines overshoot by 3 dB or so. */
const QUIET = 0.5;

/** The greatest level between and at the samples, of sound that is pushed in order. Source: ITU-R BS.1770-4 Annex 2. */
export class TruePeakMeter {
  private sample = 0;
  private between = 0;
  private tails: Float32Array[] = [];

  push(planes: Planes): void {
    this.tails = planes.map((plane, channel) => {
      const tail = this.tails[channel] ?? new Float32Array(2 * REACH);
      const joined = new Float32Array(tail.length + plane.length);
      joined.set(tail);
      joined.set(plane, tail.length);
      this.look(joined);
      return joined.slice(-2 * REACH);
    });
  }

  /** In dBTP; −Infinity for silence. @returns also the greatest sample, in dBFS. */
  finish(): { truePeak: number; samplePeak: number } {
    this.push(this.tails.map(() => new Float32Array(2 * REACH)));
    return {
      truePeak: 20 * Math.log10(Math.max(this.between, this.sample)),
      samplePeak: 20 * Math.log10(this.sample),
    };
  }

  private look(samples: Float32Array): void {
    const end = samples.length - 2 * REACH;
    for (let i = 0; i < end; i++) {
      const here = Math.abs(samples[i + REACH - 1] as number);
      if (here > this.sample) this.sample = here;
      const next = Math.abs(samples[i + REACH] as number);
      if (Math.max(here, next) < QUIET * this.between) continue;
      for (let phase = 1; phase < PHASES; phase++) {
        const taps = TAPS[phase] as Float64Array;
        let sum = 0;
        for (let t = 0; t < 2 * REACH; t++) sum += (taps[t] as number) * (samples[i + t] as number);
        if (sum > this.between) this.between = sum;
        else if (-sum > this.between) this.between = -sum;
      }
    }
  }
}
