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
        this.between = Math.max(this.between, Math.abs(pointBetween(samples, i, phase)));
      }
    }
  }
}

/** A point between two samples, from the sample `REACH` − 1 after `from` on. @param phase 1…{@link PHASES} − 1. */
function pointBetween(samples: Float32Array, from: number, phase: number): number {
  const taps = TAPS[phase] as Float64Array;
  let sum = 0;
  for (let t = 0; t < 2 * REACH; t++) sum += (taps[t] as number) * (samples[from + t] as number);
  return sum;
}

/** Sound, and for each of its samples the greatest level at it and on the way to its neighbours, of any channel. */
export interface PeakedSound {
  planes: Planes;
  peaks: Float32Array;
}

/** Finds the true peak of each sample while sound streams. It comes out a little later than it goes in. */
export class PeakFinder {
  private tails: Planes;
  /** Samples of the silence before the first, which do not come out. */
  private lead = REACH + 1;
  /** The greatest level between the last sample that came out and the next. */
  private before = 0;

  /** @param least levels below this are not looked at closely: the greatest sample stands for them. */
  constructor(
    channels: number,
    private readonly least: number,
  ) {
    this.tails = Array.from({ length: channels }, () => new Float32Array(2 * REACH));
  }

  push(planes: Planes): PeakedSound {
    const all = this.tails.map((tail, channel) => {
      const plane = planes[channel] ?? new Float32Array(0);
      const joined = new Float32Array(tail.length + plane.length);
      joined.set(tail);
      joined.set(plane, tail.length);
      return joined;
    });
    this.tails = all.map((joined) => joined.slice(-2 * REACH));
    const count = (all[0]?.length ?? 0) - 2 * REACH;
    const drop = Math.min(this.lead, count);
    this.lead -= drop;
    const peaks = new Float32Array(count - drop);
    for (let i = drop; i < count; i++) peaks[i - drop] = this.computePeak(all, i);
    return { planes: all.map((joined) => joined.slice(drop + REACH - 1, count + REACH - 1)), peaks };
  }

  finish(): PeakedSound {
    return this.push(this.tails.map(() => new Float32Array(REACH + 1)));
  }

  private computePeak(all: Planes, i: number): number {
    let here = 0;
    let after = 0;
    for (const samples of all) {
      const sample = Math.abs(samples[i + REACH - 1] as number);
      const next = Math.abs(samples[i + REACH] as number);
      if (sample > here) here = sample;
      if (Math.max(sample, next) < this.least) continue;
      for (let phase = 1; phase < PHASES; phase++) {
        after = Math.max(after, Math.abs(pointBetween(samples, i, phase)));
      }
    }
    const peak = Math.max(here, after, this.before);
    this.before = after;
    return peak;
  }
}
